import { competenceMissing } from "../../core/procedure/competent";
import { stepLabel } from "../../core/procedure/steps";
import type { IsolationLife, WalkStep } from "../../core/isolation/isolation";
import type { Competence, Role } from "../../core/people/roles";
import type { UnitSystem } from "../../core/units/units";
import { StepForm } from "../job/StepForm";

type Person = Readonly<{
  id: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  units: UnitSystem;
}>;

type Props = Readonly<{ isolation: IsolationLife; stale: readonly string[]; person: Person }>;

/** Proofs that went stale: nobody goes on before they are done again. */
export function ProofsDue(props: Props) {
  const due = proofsOf(props).filter(({ why }) => why !== undefined);
  if (due.length === 0) return null;
  return (
    <section aria-label="Proofs to do again" className="border-warning mb-5 border-l-4 pl-4">
      <h3 className="text-lg font-semibold">
        Prove again before anybody goes on: <span className="num">{due.length}</span>
      </h3>
      <Proofs some={due} {...props} />
    </section>
  );
}

/** The rest can be done again at any time. */
export function ProveAgain(props: Props) {
  const fresh = proofsOf(props).filter(({ why }) => why === undefined);
  if (fresh.length === 0) return null;
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Prove again at any time</summary>
      <Proofs some={fresh} {...props} />
    </details>
  );
}

type Proof = Readonly<{ label: string; step: WalkStep; why: string | undefined }>;

function proofsOf({ isolation, stale }: Props): Proof[] {
  const latest = new Map<string, WalkStep>();
  for (const step of isolation.steps) if (step.kind === "prove" && step.done) latest.set(stepLabel(step), step);
  return [...latest].map(([label, step]) => ({ label, step, why: stale.find((one) => one.startsWith(`${label},`)) }));
}

function Proofs({ some, isolation, person }: Props & Readonly<{ some: readonly Proof[] }>) {
  const mayDo = person.roles.some((role) => role === "isolator" || role === "operator" || role === "coordinator");
  return (
    <ul className="divide-base-300 divide-y">
      {some.map(({ label, step, why }) => (
        <li key={label} aria-label={`Prove again: ${label}`} className="py-2">
          <p className="font-medium">{step.words}</p>
          {why && <p className="text-sm">{why.slice(label.length + 2)}</p>}
          {mayDo && competenceMissing(step, person.competences) === null ? (
            <StepForm
              isolation={isolation.number}
              step={step}
              label={label}
              units={person.units}
              keep={null}
              walker={person}
              again
            />
          ) : (
            <p className="text-sm">
              Needs {competenceMissing(step, person.competences) ?? "an isolator's"} competence.
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
