import { Link } from "@/ui/text/Link";
import type { ReactNode } from "react";
import { isDifferent, isUnsafe, type Differences as Other } from "@/core/library/differences";
import type { ByProcedure as By } from "@/server/library/byProcedure";
import { ActForm } from "@/ui/act/ActForm";
import { Tags } from "@/ui/text/Tags";
import { Differences } from "./Stale";

/** The procedure by which the job was asked for, judged on the plant of today: what is as it says, and what is not. */
export function ByProcedure({ by, job, mayLeave }: { by: By; job: string; mayLeave: boolean }) {
  const { version, differences } = by;
  const { life } = version;
  const unsafe = isUnsafe(differences);
  const different = isDifferent(differences);
  const count = version.content.points.length;
  const points = count === 1 ? "its one point holds" : `its ${count} points hold`;
  return (
    <section
      role={unsafe ? "alert" : undefined}
      aria-label="By the procedure"
      className={`border-l-4 px-3 py-1 ${unsafe ? "border-error bg-error/10" : different ? "border-warning" : "border-success"}`}
    >
      <p>
        By{" "}
        <Link href={`/procedures/${life.number}?version=${life.version}`} className="link tag">
          {life.number}
        </Link>{" "}
        version <span className="num">{life.version}</span>:{" "}
        {unsafe ? (
          <strong>it does not hold on the plant of today. Nobody isolates by it.</strong>
        ) : different ? (
          <>
            {points} today. <strong>Some of it is otherwise: read it.</strong>
          </>
        ) : (
          <>nothing is otherwise today: {points}.</>
        )}
      </p>
      {different && <What differences={differences} />}
      {mayLeave && unsafe && (
        <div className="mt-2">
          <ActForm
            act="job.leave-procedure"
            label="Go on without the procedure"
            fixed={{ job }}
            button="Go on without the procedure"
            compact
          />
        </div>
      )}
    </section>
  );
}

function What({ differences: all }: { differences: Other }) {
  const { today } = all;
  const isPlantOther =
    today.change.added.length + today.change.removed.length + today.change.changed.length > 0 || isUnsafe(all);
  return (
    <ul className="mt-1 space-y-1">
      {all.otherWork && (
        <li className="text-error">
          <strong>The work asked for is other than the procedure&apos;s:</strong> other places, another way of meeting
          them, or other rules.
        </li>
      )}
      {isPlantOther && (
        <li className={isUnsafe(all) ? "text-error" : ""}>
          <Differences stale={today} />
        </li>
      )}
      <List words="Points only in today's plan" of={all.pointsMore} show={(tags) => <Tags tags={tags} />} />
      <List words="Points only in the procedure" of={all.pointsLess} show={(tags) => <Tags tags={tags} />} />
      <List words="Hazards that are new" of={all.hazardsMore} />
      <List words="Hazards that are no more" of={all.hazardsLess} />
      <List words="Permits that are new" of={all.permitsMore} />
      <List words="Permits that are asked for no more" of={all.permitsLess} />
    </ul>
  );
}

function List({
  words,
  of,
  show = (all) => all.join("; "),
}: {
  words: string;
  of: readonly string[];
  show?: (all: readonly string[]) => ReactNode;
}) {
  if (of.length === 0) return null;
  return (
    <li>
      <strong>{words}:</strong> {show(of)}
    </li>
  );
}
