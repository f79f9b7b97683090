import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { redirect } from "next/navigation";
import { find } from "@/server/job/find";
import { requirePerson } from "@/server/people/session";

export const metadata: Metadata = { title: "Find" };

const MOST_LETTERS = 60;

/** What the letters in the head may mean. One that says it exactly, and nothing else does, is opened at once. */
export default async function FindPage({ searchParams }: { searchParams: Promise<Record<string, unknown>> }) {
  await requirePerson();
  const { q } = await searchParams;
  const sought = (typeof q === "string" ? q : "").trim().slice(0, MOST_LETTERS);
  const found = find(sought);
  const exact = found.filter(({ name }) => name.toLowerCase() === sought.toLowerCase());
  if (exact.length === 1) redirect(exact[0]!.href);
  return (
    <div className="px-4 py-4 md:px-5">
      <h1 className="text-xl font-semibold">{sought === "" ? "Find" : `“${sought}”`}</h1>
      {found.length === 0 ? (
        <p className="mt-2 max-w-prose">
          {sought === ""
            ? "Type two letters of a tag, a job, a permit, a person or a lock in the head; the key / goes there."
            : "Nothing is called so. Try fewer letters, or look in the plant register by area and kind."}
        </p>
      ) : (
        <ul className="border-base-300 mt-3 max-w-4xl border-t">
          {found.map(({ what, name, words, href }) => (
            <li key={`${what} ${name}`} className="border-base-300 border-b">
              <Link
                href={href}
                className="hover:bg-base-200 grid min-h-11 grid-cols-[4rem_9rem_1fr] items-center gap-x-3"
              >
                <span className="text-sm">{what}</span>
                <span className={what === "person" ? "font-medium" : "tag"}>{name}</span>
                <span className="truncate">{words}</span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
