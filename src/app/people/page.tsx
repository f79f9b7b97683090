import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { foundBy, pageOf } from "@/core/listed";
import { ROLES } from "@/core/people/roles";
import type { Account } from "@/core/accounts/accountLife";
import { inductionMissing } from "@/core/accounts/induction";
import { PEOPLE_AT_MOST, PEOPLE_COLUMNS } from "@/core/accounts/peopleList";
import { mayRead } from "@/core/people/mayRead";
import { accountsNow } from "@/server/acts/accounts";
import { database } from "@/server/db/database";
import { dayOf } from "@/server/lists/lists";
import { requirePerson } from "@/server/people/session";
import { namesOf } from "@/server/people/signIn";
import { currentPlant } from "@/server/plant/plantStore";
import { requestTime_ms, shiftHours, siteTime } from "@/server/runtime/siteTime";
import { FindForm, ListChoice } from "@/ui/list/FindForm";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { TakeOut } from "@/ui/text/TakeOut";
import { EnterList } from "@/ui/people/EnterList";
import { AccountForms, EnterPerson, OwnAccount } from "@/ui/people/PeopleForms";

export const metadata: Metadata = { title: "People" };

type Params = Promise<Record<string, string | string[] | undefined>>;

const PAGE = 50;

/** Who may do what, for whom they work, who is shut out and who has left. Accounts are a coordinator's, and never their own. */
export default async function PeoplePage({ searchParams }: { searchParams: Params }) {
  const person = await requirePerson();
  const params = await searchParams;
  const query = readListQuery(params, ["name"], { sort: "name", down: false });
  const role = ROLES.find((one) => one === params.role) ?? "";
  const mayKeep = mayRead("accounts", person);
  const now_ms = requestTime_ms();
  const nameOf = namesOf(database());
  const areas = mayKeep ? (currentPlant(database())?.plant.areas ?? []) : [];
  const toAppoint = { areas: areas.map(({ name }) => name), shifts: shiftHours() };
  const people = accountsNow(now_ms).filter(({ active }) => active || mayKeep);
  const gone = people.filter(({ active }) => !active).length;
  const found = foundBy(
    people.filter(({ roles }) => role === "" || roles.includes(role)),
    query.find,
    ({ name, signIn, firm, competences, id }) =>
      [name, mayKeep || id === person.id ? signIn : "", firm, ...competences].join(" "),
  );
  const { rows, page, pages } = pageOf(found, query.page, PAGE);
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">People</h1>
        <FindForm path="/people" query={query} words="Name, firm or competence">
          <ListChoice
            name="role"
            words="Role"
            value={role}
            options={[["", "every role"], ...ROLES.map((one) => [one, one] as const)]}
          />
        </FindForm>
      </div>
      <p className="mt-1 mb-4 opacity-85">
        <span className="num">{people.length - gone}</span> may sign in
        {mayKeep && gone > 0 && (
          <>
            , <span className="num">{gone}</span> may not any more
          </>
        )}
        .{" "}
        <Link href="/people/here" className="link">
          Who is where now
        </Link>
      </p>
      {mayKeep && (
        <div className="-mt-3 mb-4">
          <TakeOut reader={person} list="people" />
        </div>
      )}
      <div className="grid items-start gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <div>
          {rows.length === 0 && <p>Nobody is like that.</p>}
          <ul className="border-base-300 max-w-4xl border-t">
            {rows.map((one) => (
              <li key={one.id} className={`border-base-300 border-b py-2 ${one.active ? "" : "opacity-75"}`}>
                <div className="grid gap-x-4 sm:grid-cols-[14rem_1fr]">
                  <p>
                    <span className="font-medium">{one.name}</span>{" "}
                    {(mayKeep || one.id === person.id) && (
                      <span className="tag block text-sm opacity-85">{one.signIn}</span>
                    )}
                  </p>
                  <p className="text-sm">
                    {one.roles.join(", ")}
                    <Appointed to={one.appointedFor} />
                    <Competences of={one} by={mayKeep ? nameOf : null} now_ms={now_ms} />
                    {one.firm && <Firm of={one} by={mayKeep ? nameOf : null} now_ms={now_ms} />}
                    {!one.active && <strong className="block">Signs in no more</strong>}
                    {mayKeep && one.shutUntil_ms !== null && (
                      <strong className="block">Shut out by wrong tries until {siteTime(one.shutUntil_ms)}</strong>
                    )}
                  </p>
                </div>
                {mayKeep && one.id !== person.id && (
                  <details>
                    <summary className="link min-h-6 w-fit cursor-pointer text-sm">Account of {one.name}</summary>
                    <AccountForms
                      toAppoint={toAppoint}
                      person={{
                        ...one,
                        until: Object.fromEntries(
                          Object.entries(one.appointed).flatMap(([competence, { until_ms }]) =>
                            until_ms === null ? [] : [[competence, dayOf(until_ms)]],
                          ),
                        ),
                        inductedUntil: one.induction === null ? "" : dayOf(one.induction.until_ms),
                        isShut: one.shutUntil_ms !== null,
                        seen: siteTime(one.seen_ms),
                      }}
                    />
                  </details>
                )}
              </li>
            ))}
          </ul>
          <ListPages path="/people" query={query} more={{ role }} page={page} pages={pages} />
        </div>
        <div className="flex flex-col gap-8">
          {mayKeep && <EnterPerson toAppoint={toAppoint} />}
          {mayKeep && <EnterList columns={PEOPLE_COLUMNS} atMost={PEOPLE_AT_MOST} />}
          <OwnAccount />
        </div>
      </div>
    </div>
  );
}

/** Where and when an issuer or approver signs; nothing where that is everywhere and always. */
function Appointed({ to: { areas, shifts } }: Readonly<{ to: Account["appointedFor"] }>) {
  if (areas.length + shifts.length === 0) return null;
  const hours = shifts.map((hour) => `${String(hour).padStart(2, "0")}:00`);
  return (
    <span className="block">
      Appointed {areas.length > 0 && `for ${areas.join(", ")}`}{" "}
      {hours.length > 0 && `in the shift from ${hours.join(", ")}`}
    </span>
  );
}

/** What somebody isolates and proves, until when, and for whoever keeps accounts by whom they were found able to. */
function Competences({
  of: { competences, appointed },
  by,
  now_ms,
}: Readonly<{ of: Pick<Account, "competences" | "appointed">; by: ((id: string) => string) | null; now_ms: number }>) {
  return competences.map((one) => {
    const given = appointed[one];
    const until_ms = given?.until_ms ?? null;
    const isOver = until_ms !== null && until_ms < now_ms;
    return (
      <span key={one} className="block">
        {one} isolations
        {until_ms !== null &&
          (isOver ? <strong> no more since {dayOf(until_ms)}</strong> : <> until {dayOf(until_ms)}</>)}
        {by !== null && given !== undefined && <span className="opacity-85">, by {by(given.by)}</span>}
      </span>
    );
  });
}

/** The firm that somebody works for, and whether they know this site: else they begin no work. */
function Firm({
  of,
  by,
  now_ms,
}: Readonly<{ of: Pick<Account, "firm" | "induction">; by: ((id: string) => string) | null; now_ms: number }>) {
  const missing = inductionMissing(of, now_ms);
  const { induction } = of;
  return (
    <span className="block">
      {of.firm},{" "}
      {induction === null ? (
        <strong>not inducted: begins no work</strong>
      ) : missing === "over" ? (
        <strong>inducted no more since {dayOf(induction.until_ms)}</strong>
      ) : (
        <>inducted until {dayOf(induction.until_ms)}</>
      )}
      {by !== null && induction !== null && <span className="opacity-85">, by {by(induction.by)}</span>}
    </span>
  );
}
