import { Link } from "@/ui/text/Link";
import { isMinor } from "@/core/minor/minorSteps";
import { EndAlone } from "@/ui/minor/WhenShown";
import type { JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { StartRestoring } from "@/ui/job/StartRestoring";
import { WalkStage } from "./WalkStage";

/** From the last permit closed to the plant back in service. */
export function ReturnStage({ view, person }: { view: JobView; person: Person }) {
  const { isolation } = view;
  const isCoordinator = person.roles.includes("coordinator");
  if (isolation === null)
    return <p className="p-4">Nothing is isolated for this job, so there is nothing to restore.</p>;
  if (isolation.state === "isolating" || isolation.state === "proven" || isolation.state === "testing") {
    const on = [...new Set(view.boxes.flatMap((box) => box.locks.map((lock) => lock.person)))];
    const standing = view.boxes.flatMap((box) => box.standing);
    // Of one's own, each can be taken off and restoring begun by one signature; another's hinders it.
    const own = view.boxes.flatMap((box) =>
      box.standing.filter((one) => one.personId === person.id).map(({ lock }) => ({ box: box.number, lock })),
    );
    const open = view.permits.filter((permit) => permit.state !== "closed" && permit.state !== "cancelled");
    const isAlone = isMinor(isolation.steps);
    const alone = isAlone ? view.permits.find(({ kind }) => kind === "minor isolation") : undefined;
    const mine = alone?.holderId === person.id;
    if (alone && mine && ["live", "suspended", "run out"].includes(alone.state)) {
      const back = isolation.steps.filter(({ phase }) => phase === "restore");
      return (
        <div className="space-y-4 p-4 md:px-5">
          <p className="max-w-prose">
            You work alone under{" "}
            <Link className="link tag" href={`/permits/${alone.number}`}>
              {alone.number}
            </Link>
            . When the work is done, do these in their order, sign, and only then take your lock off.
          </p>
          <EndAlone
            permit={alone.number}
            isolation={isolation.number}
            job={view.number}
            steps={back.map((step) => ({ ...step, plate: step.plate === null ? null : "" }))}
            lock={isolation.steps.find(({ kind }) => kind === "lock")?.done?.lock ?? ""}
            told={isolation.steps.flatMap(({ kind, done }) => (kind === "tell" && done?.evidence?.words) || [])}
          />
        </div>
      );
    }
    return (
      <div className="max-w-prose space-y-4 p-4 md:px-5">
        <p>
          The points stay locked until restoring is started. It can be started when nobody is signed on, every permit is
          closed and the lock that was first on is off the box.
        </p>
        <ul className="space-y-1">
          <li>
            People on the box: <strong>{on.length === 0 ? "nobody" : on.join(", ")}</strong>
          </li>
          <li>
            Locks on the box over the others:{" "}
            <strong>
              {standing.length === 0 ? "none" : standing.map(({ name, lock }) => `${name}, ${lock}`).join("; ")}
            </strong>
            {view.boxes.map((box) => (
              <span key={box.number}>
                {" "}
                <Link href={`/boxes/${box.number}`} className="link">
                  Box <span className="tag">{box.number}</span>
                </Link>
              </span>
            ))}
          </li>
          <li>
            Open permits:{" "}
            <strong>
              {open.length === 0 ? "none" : open.map((permit) => `${permit.number}, ${permit.state}`).join("; ")}
            </strong>
          </li>
        </ul>
        {isCoordinator || (isAlone && view.holderId === person.id) ? (
          <StartRestoring isolation={isolation.number} own={own} left={view.left} />
        ) : (
          <p>A coordinator starts restoring.</p>
        )}
      </div>
    );
  }
  return (
    <WalkStage
      view={view}
      person={person}
      phase="restore"
      lead={
        <>
          {isolation.state === "restored" && view.state === "open" && (
            <div className="mb-4 space-y-3">
              <p>Every lock is off and the plant is handed over.</p>
              {isCoordinator || (isMinor(isolation.steps) && view.holderId === person.id) ? (
                <ActForm
                  act="job.close"
                  label="Close the job"
                  fixed={{ job: view.number }}
                  pin
                  button="Close the job"
                  tone="strong"
                />
              ) : (
                <p>A coordinator closes the job.</p>
              )}
            </div>
          )}
          {view.state === "closed" && (
            <p className="mb-4 text-lg font-semibold">The job is closed and back in service.</p>
          )}
        </>
      }
    />
  );
}
