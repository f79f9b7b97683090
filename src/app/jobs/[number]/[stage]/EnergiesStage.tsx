import Link from "next/link";
import type { EnergyGroup } from "@/core/plan/energies";
import type { Plan } from "@/core/plan/plan";
import type { WayIn } from "@/core/trace/waysIn";
import type { UnitSystem } from "@/core/units/units";
import { type JobView } from "@/server/job/jobView";
import { lanternOf, planOf } from "@/server/job/plans";
import { LaidLantern } from "./LaidLantern";
import { Carrier } from "@/ui/text/Carrier";
import { energy } from "@/ui/text/energy";
import { Route } from "@/ui/text/Route";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

/** What is opened beyond the first look: one way in by its place in the list, the locks, or what matters last. */
export type Opened = number | "locks" | "unlikely" | null;

/** What reaches the work, what matters first in front; what is stored; what must be looked at. */
export async function EnergiesStage({ view, units, opened }: { view: JobView; units: UnitSystem; opened: Opened }) {
  const made = await planOf(view, "work");
  const lantern = lanternOf(view, made);
  const kept = view.isolation?.state === "isolating" || view.isolation?.state === "proven";
  const ways = made.waysIn.map((way, index) => ({ ...way, index }));
  const sources = new Set(made.routes.map((row) => `${row.source} ${row.carrier}`));
  const hidden = ways.filter((way) => way.sources.every((source) => source.hidden)).length;
  const path = `/jobs/${view.number}/energies`;
  return (
    <div className="space-y-10">
      <p className="max-w-prose text-lg">
        <span className="num font-semibold">{sources.size}</span> sources reach this work by{" "}
        <span className="num font-semibold">{ways.length}</span> ways in,{" "}
        <span className="num font-semibold">{hidden}</span> of them hidden. What comes as supplied or by the work’s own
        drive stands first. Every device is taken as passing.
      </p>
      {view.job.faces.map(({ place }) => (
        <IntoFace
          key={place}
          face={place}
          ways={ways.filter((way) => way.face === place)}
          groups={made.energies.filter((group) => group.face === place)}
          path={path}
          opened={opened}
        />
      ))}
      <LaidLantern
        scene={lantern.scene}
        frames={kept ? lantern.frames : lantern.frames.slice(0, 1)}
        now={kept ? lantern.now : 0}
      />
      {made.findings.length > 0 && (
        <section>
          <h2 className="mb-2 text-lg font-semibold">Look at these</h2>
          <ul className="max-w-4xl space-y-1.5">
            {made.findings.map((finding) => (
              <li key={finding.sentence} className="border-accent border-l-4 px-3 py-0.5">
                {finding.sentence}
              </li>
            ))}
          </ul>
        </section>
      )}
      {made.stored.length > 0 && <StoredEnergies units={units} rows={made.stored} />}
    </div>
  );
}

type Numbered = WayIn & Readonly<{ index: number }>;

function IntoFace({
  face,
  ways,
  groups,
  path,
  opened,
}: {
  face: string;
  ways: readonly Numbered[];
  groups: readonly EnergyGroup[];
  path: string;
  opened: Opened;
}) {
  const likely = ways.filter(({ tier }) => tier < 3).sort((a, b) => a.tier - b.tier || a.index - b.index);
  const unlikely = ways.filter(({ tier }) => tier === 3);
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">
        Into <span className="tag">{face}</span>
      </h2>
      {ways.length === 0 && <p>Nothing reaches it. If that surprises you, the register is missing a link: walk it.</p>}
      {likely.length > 0 && (
        <WideTable label={`Ways into ${face}`}>
          <table className="table">
            <thead>
              <tr>
                <th className="w-36">Through</th>
                <th className="w-36">As</th>
                <th className="w-56">From</th>
                <th>Likeliest way, from source to work</th>
                <th className="w-52">Hidden</th>
              </tr>
            </thead>
            <tbody>
              {likely.map((way) => (
                <WayRows key={way.index} way={way} path={path} isOpen={opened === way.index} />
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <p className="mt-3 flex flex-wrap gap-x-8 gap-y-1">
        {unlikely.length > 0 && (
          <span>
            <span className="num">{unlikely.length}</span> more {unlikely.length === 1 ? "way" : "ways"} in only by
            turning other machines or back over a shared board.{" "}
            <Toggle path={path} show="unlikely" isOpen={opened === "unlikely"} words="Show them" />
          </span>
        )}
        {groups.length > 0 && (
          <Toggle path={path} show="locks" isOpen={opened === "locks"} words="Which lock stops what" />
        )}
      </p>
      {opened === "unlikely" && unlikely.length > 0 && (
        <ul className="border-base-300 mt-2 space-y-1.5 border-l pl-4">
          {unlikely.map((way) => (
            <li key={way.index}>
              <Carrier name={way.carrier} /> through <span className="tag">{way.through}</span>
              <Route via={way.sources[0]!.via} />
            </li>
          ))}
        </ul>
      )}
      {opened === "locks" && <Locks face={face} groups={groups} />}
    </section>
  );
}

function Toggle({ path, show, isOpen, words }: { path: string; show: string; isOpen: boolean; words: string }) {
  return (
    <Link href={isOpen ? path : `${path}?show=${show}`} scroll={false} className="link">
      {isOpen ? "Hide it again" : words}
    </Link>
  );
}

/** One way in: its likeliest source, and every other when it is opened. */
function WayRows({ way, path, isOpen }: { way: Numbered; path: string; isOpen: boolean }) {
  const [lead, ...others] = way.sources;
  const source = lead!;
  return (
    <>
      <tr>
        <td className="tag">{way.through}</td>
        <td>
          <Carrier name={way.carrier} />
        </td>
        <td>
          <span className="tag">{source.source}</span> <span className="text-sm">{source.carrier}</span>
          {others.length > 0 && (
            <span className="block text-sm">
              <Toggle path={path} show={String(way.index)} isOpen={isOpen} words={`and ${others.length} more`} />
            </span>
          )}
        </td>
        <td>
          <Route via={source.via} marked={source.nearestDevice ? [source.nearestDevice] : []} />
          {source.nearestDevice === null && <strong className="block">No device on this way.</strong>}
        </td>
        <td>{source.hidden ? <span className="font-medium">Hidden: {source.hiddenBy.join(", ")}</span> : "plain"}</td>
      </tr>
      {isOpen && (
        <tr>
          <td colSpan={5} className="pt-0">
            <ul className="border-base-300 space-y-1.5 border-l pl-4">
              {others.map((other) => (
                <li key={`${other.source} ${other.carrier}`}>
                  <Carrier name={other.carrier} />{" "}
                  <span className="text-sm">{other.hidden ? `hidden: ${other.hiddenBy.join(", ")}` : ""}</span>
                  <Route via={other.via} marked={other.nearestDevice ? [other.nearestDevice] : []} />
                </li>
              ))}
            </ul>
          </td>
        </tr>
      )}
    </>
  );
}

/** What the same lock stops: said only of a lock of the plan that every way crosses. */
function Locks({ face, groups }: { face: string; groups: readonly EnergyGroup[] }) {
  return (
    <div className="mt-2">
      <WideTable label={`Locks before ${face}`}>
        <table className="table max-w-5xl">
          <thead>
            <tr>
              <th className="w-56">Nearest lock that every way crosses</th>
              <th className="w-40">Comes as</th>
              <th>From</th>
              <th className="w-64">Brings</th>
            </tr>
          </thead>
          <tbody>
            {groups.map((group) => (
              <LockRow key={`${group.lock}${group.by}`} group={group} />
            ))}
          </tbody>
        </table>
      </WideTable>
    </div>
  );
}

const SHOWN_SOURCES = 8;

function LockRow({ group }: { group: EnergyGroup }) {
  const { rows, lock, locked, by } = group;
  const carriers = [...new Set(rows.map(({ arrives }) => arrives))];
  const sources = [...new Set(rows.map(({ source }) => source))];
  const brought = [...new Set(rows.flatMap(({ brings }) => (brings === null ? [] : [brings])))];
  return (
    <tr>
      <td>
        {lock === null ? (
          <>
            no one lock, last by <span className="tag">{by}</span>
          </>
        ) : (
          <>
            <span className={`tag ${locked ? "font-bold" : ""}`}>{lock}</span>
            <span className="block text-sm">{locked ? "stopped by the same lock" : "not a point of the plan"}</span>
          </>
        )}
      </td>
      <td>{carriers.join(", ")}</td>
      <td>
        <Tags tags={sources} most={SHOWN_SOURCES} />
      </td>
      <td className="text-sm">
        {brought.length > 0 ? brought.slice(0, 2).join("; ") : "may push, turn or warm it"}
        {brought.length > 2 && ` and ${brought.length - 2} more`}
      </td>
    </tr>
  );
}

type StoredRows = Plan["stored"];

function StoredEnergies({ rows, units }: { rows: StoredRows; units: UnitSystem }) {
  const bySource = new Map<string, StoredRows[number][]>();
  for (const row of rows) bySource.set(row.source, [...(bySource.get(row.source) ?? []), row]);
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Stored energy that may reach the work</h2>
      <WideTable label="Stored energies">
        <table className="table">
          <thead>
            <tr>
              <th className="w-32">At</th>
              <th className="w-36">As</th>
              <th className="w-72">How much</th>
              <th>Make it harmless</th>
              <th>Nearest way</th>
            </tr>
          </thead>
          <tbody>
            {[...bySource.values()].map((all) => {
              const nearest = all.reduce((best, row) => (row.via.length < best.via.length ? row : best));
              return (
                <tr key={nearest.source}>
                  <td className="tag">{nearest.source}</td>
                  <td>
                    <Carrier name={nearest.carrier} />
                  </td>
                  <td>{energy(nearest.quantity, units)}</td>
                  <td>
                    {nearest.harmless}
                    {nearest.regenerating && (
                      <strong className="block">Comes back by itself: watch it until the end.</strong>
                    )}
                  </td>
                  <td>
                    <Route via={nearest.via} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </WideTable>
    </section>
  );
}
