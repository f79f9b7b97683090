import { MINOR_CONDITIONS, type MinorFault } from "@/core/refusal/minorFault";
import { MINOR_WORDS } from "@/core/words/en/minor";
import { PermitsForm, type PermitsFormProps } from "@/ui/job/PermitsForm";

/** Whether the plan is a minor isolation, condition by condition, and the form that approves it as one. */
export function ShortRoute({ faults, form }: { faults: readonly MinorFault[]; form: PermitsFormProps | null }) {
  const against = new Map(faults.map((fault) => [fault.condition, fault.evidence]));
  return (
    <section aria-label="Short route">
      <p className="mb-2 max-w-prose">
        {faults.length === 0
          ? "As far as register and record know, this is a minor isolation: one person locks, proves, works and takes the lock off, alone. Lock, tag, proof and try remain."
          : "This is no minor isolation, so nobody does it alone:"}
      </p>
      <ul className="mb-4 max-w-prose text-sm">
        {MINOR_CONDITIONS.map((condition) => {
          const evidence = against.get(condition);
          return faults.length > 0 && evidence === undefined ? null : (
            <li key={condition} className={`border-l-4 px-3 py-0.5 ${evidence ? "border-warning" : "border-success"}`}>
              {evidence ? (
                <>
                  <strong>Not so that {MINOR_WORDS[condition]}</strong>: {evidence.slice(0, MOST).join(", ")}
                  {evidence.length > MOST && ` and ${evidence.length - MOST} more`}
                </>
              ) : (
                <span className="inline-block first-letter:uppercase">{MINOR_WORDS[condition]}</span>
              )}
            </li>
          );
        })}
      </ul>
      {form && faults.length === 0 && <PermitsForm {...form} />}
    </section>
  );
}
const MOST = 6;
