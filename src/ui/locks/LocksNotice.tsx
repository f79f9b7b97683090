import { Link } from "../text/Link";
import { dayAndClock } from "../text/when";

type Props = Readonly<{
  job: string;
  due_ms: number;
  checked_ms: number | null;
  now_ms: number;
  /** Points at which the lock was not found. */
  missing: readonly string[];
  timeZone: string;
}>;

/** When the locks of an isolation that stands are read again, and where one was not found. */
export function LocksNotice({ job, due_ms, checked_ms, now_ms, missing, timeZone }: Props) {
  const isOverdue = now_ms >= due_ms;
  const calls = isOverdue || missing.length > 0;
  return (
    <p className={`mb-2 flex flex-wrap items-baseline gap-x-4 ${calls ? "border-error border-l-4 pl-3" : ""}`}>
      <span>
        {missing.length > 0 ? (
          <strong>Lock not found on {missing.join(" and ")}</strong>
        ) : (
          <>
            Locks {isOverdue ? <strong>to be read since</strong> : "read again by"}{" "}
            <span className="num">{dayAndClock(due_ms, timeZone)}</span>
          </>
        )}
        {checked_ms !== null && (
          <>
            , hung or last read <span className="num">{dayAndClock(checked_ms, timeZone)}</span>
          </>
        )}
      </span>
      <Link href={`/jobs/${job}/locks`} className="link">
        Read the locks
      </Link>
    </p>
  );
}
