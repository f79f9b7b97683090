import type { Metadata } from "next";
import { foundBy, inOrder, pageOf } from "@/core/listed";
import { peopleToChoose } from "@/server/job/jobView";
import { gearRegister, openJobNumbers, type GearRow } from "@/server/box/boxView";
import { database } from "@/server/db/database";
import { detectorRows } from "@/server/permit/detectorStore";
import { isRevoked } from "@/server/permit/instrumentActs";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { GearForm, HandOutForm, ReturnForm, WithdrawForm } from "@/ui/gear/GearForms";
import { EnterInstrument, InstrumentToken } from "@/ui/gear/InstrumentForms";
import { FindForm, ListChoice } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Register of locks and instruments" };

type Params = Promise<Record<string, string | string[] | undefined>>;

const SORTS = ["number", "until", "owner", "where"] as const;
const PAGE = 100;
const columnsOf = (kind: string) => [
  { words: "Number", sort: "number" as const },
  { words: "May be used", sort: "until" as const },
  kind === "lock" ? { words: "Owner", sort: "owner" as const } : { words: "Rating, error" },
  { words: "Where", sort: "where" as const },
  ...(kind === "lock" ? [{ words: "Key" }] : []),
];

/** Every numbered thing: whose it is, until when it is good, and where it is. What may not be used says why. */
export default async function RegisterPage({ searchParams }: { searchParams: Params }) {
  const person = await requirePerson();
  const params = await searchParams;
  const query = readListQuery(params, SORTS, { sort: "number", down: false });
  const all = gearRegister(requestTime_ms());
  const everyKind = [...new Set(all.map((row) => row.kind))];
  const kindAsked = everyKind.find((kind) => kind === params.kind) ?? "";
  const found = foundBy(
    all.filter(({ kind }) => kindAsked === "" || kind === kindAsked),
    query.find,
    ({ kind, number, owner, where, key, state }) => [kind, number, owner, where, key, state].join(" "),
  );
  const sorted = inOrder(
    found,
    ({ number, until_ms, owner, where }) => ({ number, until: until_ms, owner: owner || null, where })[query.sort],
    query.down,
  );
  // Kinds stay together, in the order of the register.
  const { rows, page, pages } = pageOf(
    inOrder(sorted, ({ kind }) => everyKind.indexOf(kind)),
    query.page,
    PAGE,
  );
  const more = { kind: kindAsked };
  const timeZone = siteTimeZone();
  const mayKeep = person.roles.some((role) => ["coordinator", "operator", "issuer", "isolator"].includes(role));
  const isCoordinator = person.roles.includes("coordinator");
  const sending = detectorRows(database());
  const kinds = [...new Set(rows.map((row) => row.kind))];
  const day = (at_ms: number) =>
    new Intl.DateTimeFormat("en-GB", { timeZone, day: "numeric", month: "short", year: "numeric" }).format(at_ms);
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Locks, earths and instruments</h1>
        {all.length > 0 && (
          <FindForm path="/locks/register" query={query} words="Number, owner, where or key">
            <ListChoice
              name="kind"
              words="Kind"
              value={kindAsked}
              options={[["", "every kind"], ...everyKind.map((kind) => [kind, kind] as const)]}
            />
          </FindForm>
        )}
      </div>
      <p className="mt-1 mb-6 max-w-prose opacity-85">
        What has a number. A lock has one owner, and no two people have the same key. What measures or protects is used
        only while it is in date.
      </p>
      <div className="-mt-4 mb-6">
        <TakeOut reader={person} list="gear" />
      </div>
      <div className="grid items-start gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <div>
          {all.length === 0 && <p>Nothing has been entered yet.</p>}
          {all.length > 0 && rows.length === 0 && <p>Nothing in the register is like that.</p>}
          {kinds.map((kind) => (
            <div key={kind} className="mb-8 max-w-6xl">
              <h2 className="mb-1 text-lg font-semibold first-letter:uppercase">{kind}</h2>
              <WideTable label={kind}>
                <table className="table-sm table">
                  <thead>
                    <ListHead columns={columnsOf(kind)} query={query} path="/locks/register" more={more} />
                  </thead>
                  <tbody>
                    {rows
                      .filter((row) => row.kind === kind)
                      .map((row) => (
                        <tr key={row.number}>
                          <td className="tag">{row.number}</td>
                          <td>
                            <Fitness row={row} day={day} />
                          </td>
                          <td className="num">{kind === "lock" ? row.owner || "the site" : figures(row)}</td>
                          <td>{row.where ?? "free"}</td>
                          {kind === "lock" && <td className="tag">{row.key ?? "–"}</td>}
                        </tr>
                      ))}
                  </tbody>
                </table>
              </WideTable>
            </div>
          ))}
          <ListPages path="/locks/register" query={query} more={more} page={page} pages={pages} />
        </div>
        <div className="space-y-8">
          {mayKeep && (
            <div className="space-y-4">
              <GearForm people={peopleToChoose().map(({ id, name }) => ({ id, name }))} />
              <div className="space-y-4">
                <HandOutForm jobs={openJobNumbers()} />
                <WithdrawForm />
                <ReturnForm />
              </div>
            </div>
          )}
          {(sending.length > 0 || isCoordinator) && (
            <div className="max-w-6xl">
              <h2 className="mb-1 text-lg font-semibold">Instruments that send by themselves</h2>
              <WideTable label="Instruments that send by themselves">
                <table className="table-sm table">
                  <thead>
                    <tr>
                      <th>Number</th>
                      <th>Reads</th>
                      <th>Last heard</th>
                      <th>Where</th>
                      {isCoordinator && <th>Token</th>}
                    </tr>
                  </thead>
                  <tbody>
                    {sending.map((row) => (
                      <tr key={row.id}>
                        <td className="tag">{row.id}</td>
                        <td>{row.kind === "gas" ? row.reads.join(", ") : row.kind}</td>
                        <td className="num">
                          {isRevoked(row.tokenHash) ? (
                            <strong>shut out</strong>
                          ) : row.lastAt === null ? (
                            "never"
                          ) : (
                            dayAndClock(row.lastAt, timeZone)
                          )}
                        </td>
                        <td>{row.permit === null ? "free" : `at ${row.permit}, ${row.place}`}</td>
                        {isCoordinator && (
                          <td>
                            <InstrumentToken id={row.id} isRevoked={isRevoked(row.tokenHash)} />
                          </td>
                        )}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </WideTable>
              {isCoordinator && <EnterInstrument />}
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

function Fitness({ row, day }: { row: GearRow; day: (at_ms: number) => string }) {
  switch (row.state) {
    case "fit":
      return <>{row.until_ms === null ? "yes" : <span className="num">yes, until {day(row.until_ms)}</span>}</>;
    case "to bump":
      return <span className="num">after a bump test, until {day(row.until_ms ?? 0)}</span>;
    case "out of date":
      return <strong className="num">no: out of date since {day(row.until_ms ?? 0)}</strong>;
    case "no date":
      return <strong>no: nobody wrote a date</strong>;
    case "withdrawn":
      return <strong>no: withdrawn</strong>;
  }
}

function figures(row: GearRow): string {
  const parts = [
    row.rating_V === null ? "" : `${row.rating_V} V`,
    row.error === null
      ? ""
      : `± ${row.error}${row.kind === "pressure gauge" ? " bar" : row.kind === "thermometer" ? " °C" : ""}`,
  ].filter(Boolean);
  return parts.join(", ") || "–";
}
