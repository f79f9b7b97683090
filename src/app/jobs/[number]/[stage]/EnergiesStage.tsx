import { shownNow } from "@/core/isolation/failures";
import { Link } from "@/ui/text/Link";
import type { EnergyGroup } from "@/core/plan/energies";
import type { Plan } from "@/core/plan/plan";
import type { WayIn } from "@/core/trace/waysIn";
import type { UnitSystem } from "@/core/units/units";
import { type JobView } from "@/server/job/jobView";
import { lanternOf, planOf } from "@/server/job/plans";
import { LaidLantern } from "./LaidLantern";
import { Bench } from "@/ui/stage/Bench";
import { ShineRow } from "@/ui/stage/ShineRow";
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
    <Bench
      drawing={
        <LaidLantern
          scene={lantern.scene}
          frames={kept ? lantern.frames : lantern.frames.slice(0, 1)}
          now={kept ? lantern.now : 0}
          {...(kept && view.isolation ? shownNow(view.isolation.steps, view.planFault, view.stale) : {})}
        />
      }
    >
      <p className="mb-1 text-lg">
        <span className="num font-semibold">{sources.size}</span>{" "}
        {sources.size === 1 ? "source reaches" : "sources reach"} this work by{" "}
        <span className="num font-semibold">{ways.length}</span> {ways.length === 1 ? "path" : "paths"} in,{" "}
        <span className="num font-semibold">{hidden}</span> of them hidden.
      </p>
      <p className="mb-4 text-sm">
        What comes as supplied or by the work’s own drive stands first. Every device is taken as passing. Touch a path
        and it shines in the drawing.
      </p>
      <div className="space-y-6">
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
        {made.findings.length > 0 && (
          <section>
            <h2 className="mb-2 text-lg font-semibold">Look at these</h2>
            <ul className="space-y-1.5">
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
    </Bench>
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
      {ways.length === 0 && (
        <p>Nothing reaches it. If that surprises you, the register is missing a link: field-verify it.</p>
      )}
      {likely.length > 0 && (
        <table aria-label={`Paths into ${face}`} className="w-full">
          <thead className="sr-only">
            <tr>
              <th>Through, as</th>
              <th>From, and the likeliest path from source to work</th>
            </tr>
          </thead>
          <tbody>
            {likely.map((way) => (
              <WayRows key={way.index} way={way} path={path} isOpen={opened === way.index} />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-3 flex flex-wrap gap-x-8 gap-y-1">
        {unlikely.length > 0 && (
          <span>
            <span className="num">{unlikely.length}</span> more {unlikely.length === 1 ? "path" : "paths"} in only by
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

/** One path in: its likeliest source, and every other when it is opened. Touched, its route shines in the drawing. */
function WayRows({ way, path, isOpen }: { way: Numbered; path: string; isOpen: boolean }) {
  const [lead, ...others] = way.sources;
  const source = lead!;
  return (
    <>
      <ShineRow via={source.via} name={`${source.source} through ${way.through}`}>
        <td className="w-32 py-2 pr-3 align-top">
          <span className="tag block font-semibold">{way.through}</span>
          <Carrier name={way.carrier} />
        </td>
        <td className="py-2 align-top">
          <span className="tag">{source.source}</span> <span className="text-sm">{source.carrier}</span>
          {source.hidden && (
            <span className="border-accent ml-2 inline-block rounded-sm border px-1.5 text-sm font-medium">
              Hidden: {source.hiddenBy.join(", ")}
            </span>
          )}
          <Route via={source.via} marked={source.nearestDevice ? [source.nearestDevice] : []} />
          {source.nearestDevice === null && <strong className="block">No device on this path.</strong>}
          {others.length > 0 && (
            <span className="block text-sm">
              <Toggle path={path} show={String(way.index)} isOpen={isOpen} words={`and ${others.length} more`} />
            </span>
          )}
        </td>
      </ShineRow>
      {isOpen && (
        <tr>
          <td colSpan={2} className="pt-0 pb-2">
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
