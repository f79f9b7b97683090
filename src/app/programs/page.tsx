import type { Metadata } from "next";
import { headers } from "next/headers";
import { isGiven, READ_RIGHTS, TAKES_OUT, type Access } from "@/core/access/access";
import { mayRead } from "@/core/people/mayRead";
import { accessNow } from "@/server/access/accessStore";
import { ACTS } from "@/server/acts/acts";
import { database } from "@/server/db/database";
import { requirePerson } from "@/server/people/session";
import { namesOf } from "@/server/people/signIn";
import { siteOriginOf } from "@/server/runtime/http";
import { requestTime_ms, siteTime } from "@/server/runtime/siteTime";
import { MakeToken, RevokeToken } from "@/ui/access/AccessForms";
import { RIGHT_WORDS } from "@/ui/access/rightWords";

export const metadata: Metadata = { title: "Calendar and programs" };

/** What reads and acts for somebody without signing in. */
export default async function ProgramsPage() {
  const person = await requirePerson();
  const db = database();
  const now_ms = requestTime_ms();
  const own = accessNow(db, now_ms, person.id);
  const others = person.roles.includes("coordinator")
    ? accessNow(db, now_ms).filter(({ owner }) => owner !== person.id)
    : [];
  const nameOf = namesOf(db);
  return (
    <div className="px-4 py-4 md:px-5">
      <h1 className="text-2xl font-semibold tracking-tight">Calendar and programs</h1>
      <p className="mt-1 mb-4 max-w-prose opacity-85">
        An address that your calendar reads, or a token by which a program reads and acts for you. It signs nothing:
        what asks for your PIN asks for it still.{" "}
        <a className="link" href="/api/openapi.json">
          What programs may ask and do, as OpenAPI
        </a>
      </p>
      <div className="grid items-start gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <div className="flex flex-col gap-6">
          <Tokens title="Yours" tokens={own} none="You have none." />
          {others.length > 0 && <Tokens title="Of others" tokens={others} none="" nameOf={nameOf} />}
        </div>
        <MakeToken
          acts={actsFor(person.roles)}
          rights={READ_RIGHTS.filter((one) => !TAKES_OUT.has(one) || mayRead("files", person))}
          origin={siteOriginOf(await headers())}
        />
      </div>
    </div>
  );
}

function Tokens({
  title,
  tokens,
  none,
  nameOf,
}: {
  title: string;
  tokens: readonly Access[];
  none: string;
  nameOf?: (id: string) => string;
}) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 text-lg font-semibold">{title}</h2>
      {tokens.length === 0 && <p>{none}</p>}
      <ul className="border-base-300 max-w-4xl border-t empty:hidden">
        {tokens.map(({ number, name, rights, acts, until_ms, owner }) => (
          <li key={number} className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2">
            <span className="tag w-20">{number}</span>
            <span className="min-w-48 flex-1">
              <span className="font-medium">{name}</span>
              <span className="block text-sm">
                {nameOf && `${nameOf(owner)}: `}
                {[
                  ...rights.map((one) => (nameOf && one === "own calendar" ? "their calendar" : RIGHT_WORDS[one])),
                  ...acts.map((type) => ACTS.get(type)?.words ?? type),
                ].join(", ")}
              </span>
            </span>
            <span className="num text-sm">until {siteTime(until_ms)}</span>
            <RevokeToken token={number} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const KINDS: Readonly<Record<string, string>> = {
  job: "Requests",
  plan: "Isolation points",
  isolation: "Isolations",
  step: "Steps",
  permit: "Permits",
  gear: "Gear",
  box: "Lock boxes",
  procedure: "Procedures",
};

const OTHERS = "Others";

/** What somebody may do themselves and a program may be given, by kind. */
function actsFor(roles: readonly string[]) {
  const kinds = new Map<string, { type: string; words: string }[]>();
  for (const { type, words, roles: needs } of ACTS.values()) {
    if (!isGiven(type) || (needs.length > 0 && !needs.some((role) => roles.includes(role)))) continue;
    const kind = KINDS[type.split(".")[0]!] ?? OTHERS;
    kinds.set(kind, [...(kinds.get(kind) ?? []), { type, words }]);
  }
  const order = [...Object.values(KINDS), OTHERS];
  return [...kinds].map(([kind, all]) => ({ kind, all })).sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
}
