import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { Fragment } from "react";
import { signInToDemo } from "./actions";
import { SignInForm } from "./SignInForm";
import { DEMO_PEOPLE, DEMO_PIN } from "@/server/demo/demoPeople";
import { numbersIn, STILL_ON } from "./stillOnNumbers";
import { currentPerson, isDemo } from "@/server/people/session";

export const metadata: Metadata = { title: "Sign in" };

type Asked = { searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>> };

export default async function SignInPage({ searchParams }: Asked) {
  if (await currentPerson()) redirect("/");
  const said = (await searchParams)[STILL_ON];
  const still = typeof said === "string" ? said : null;
  return (
    <div className="mx-auto grid max-w-5xl gap-12 px-4 py-14 md:grid-cols-[1fr_1.3fr] md:px-8">
      <section>
        <h1 className="text-3xl font-semibold tracking-tight">Heavy Lantern</h1>
        <p className="mt-2 mb-8 max-w-sm">Find every energy that reaches the job. Work where it was proved dead.</p>
        {still !== null && (
          <p role="alert" className="border-error bg-error/10 mb-6 border-l-4 px-3 py-2">
            <strong>You are signed out here.</strong> Still yours on the site:{" "}
            {numbersIn(still).length === 0 && "a lock on a box"}
            {numbersIn(still).map((number, i) => (
              <Fragment key={number}>
                {i > 0 && ", "}
                <span className="tag whitespace-nowrap">{number}</span>
              </Fragment>
            ))}
            . Sign off and take your lock off, or hand it on, before you leave.
          </p>
        )}
        <SignInForm />
      </section>
      {isDemo() && (
        <section aria-labelledby="demo-heading">
          <h2 id="demo-heading" className="text-lg font-semibold">
            This is the demo
          </h2>
          <p className="mt-1 mb-4 max-w-prose">
            The Gannet Reach oil mill and everyone in it are invented. One click signs you in. Acts that carry
            responsibility ask for a PIN: in the demo it is <span className="num font-bold">{DEMO_PIN}</span> for
            everyone.
          </p>
          <ul className="divide-base-300 border-base-300 divide-y border-y">
            {DEMO_PEOPLE.map((person) => (
              <li key={person.signIn}>
                <form action={signInToDemo}>
                  <input type="hidden" name="name" value={person.signIn} />
                  <button
                    type="submit"
                    className="hover:bg-base-200 flex w-full items-baseline gap-4 px-2 py-2.5 text-left"
                  >
                    <span className="w-40 shrink-0 font-medium">{person.name}</span>
                    <span>{[...person.roles, ...person.competences].join(", ")}</span>
                  </button>
                </form>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
