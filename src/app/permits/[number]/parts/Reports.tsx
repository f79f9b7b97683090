import { AUDIT_FINDINGS, AUDIT_LOOKS, entriesOf, notAsWritten } from "@/core/permit/record/permitLog";
import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Field, TextField } from "@/ui/act/Field";
import { dayAndClock } from "@/ui/text/when";
import { AuditForm } from "@/ui/permit/AuditForm";

type Props = Readonly<{ permit: PermitView; person: Person; timeZone: string }>;

/** What people report of a permit: a fire, a look on the spot by somebody who is no part of it, somebody who would not sign. */
export function Reports({ permit, person, timeZone }: Props) {
  const may = (type: Parameters<typeof mayDo>[2]) => mayDo(permit, person, type);
  const isOfIt =
    permit.holderId === person.id ||
    permit.posted.some((one) => one.person === person.id) ||
    permit.signOns.some(({ personId, off_ms }) => personId === person.id && off_ms === null);
  const fixed = { permit: permit.number };
  const audits = entriesOf(permit.life.log, "audited");
  if (!may("note refusal") && audits.length === 0) return null;
  return (
    <section aria-labelledby="reports">
      <h2 id="reports" className="mb-1 text-lg font-semibold">
        To report
      </h2>
      <div className="border-base-300 divide-base-300 divide-y border-y">
        {may("report fire") && (
          <Report summary="Something burned">
            <p className="mb-3 text-sm">However small, and without a PIN. Work stops; a watch after it begins anew.</p>
            <ActForm
              act="permit.report-fire"
              label="Report a fire"
              fixed={fixed}
              button="Report the fire"
              tone="strong"
            >
              <Field label="Where it burned" name="where" autoComplete="off" />
              <Field label="What burned" name="what" autoComplete="off" />
              <Field label="How it was put out" name="out" autoComplete="off" />
            </ActForm>
          </Report>
        )}
        {may("audit") && !isOfIt && (
          <Report summary="Audit on the spot">
            <p className="mb-3 text-sm">
              You stand there and are no part of it. What is not as written stops the work.
            </p>
            <AuditForm permit={permit.number} looks={AUDIT_LOOKS} findings={AUDIT_FINDINGS} />
          </Report>
        )}
        {may("note refusal") && (
          <Report summary="Somebody would not sign">
            <ActForm act="permit.note-refusal" label="A refusal" fixed={fixed} pin button="Write it down">
              <Field label="Who would not" name="who" autoComplete="off" />
              <Field label="What they would not sign or write" name="what" autoComplete="off" />
              <TextField label="What they said" name="words" rows={2} />
            </ActForm>
          </Report>
        )}
      </div>
      {audits.length > 0 && (
        <ul aria-label="Audits" className="mt-2 space-y-1 text-sm">
          {audits.map(({ at_ms, by, found, words }) => {
            const wrong = notAsWritten(found);
            return (
              <li key={at_ms}>
                <span className="num">{dayAndClock(at_ms, timeZone)}</span>, {permit.nameOf(by)}:{" "}
                {wrong.length === 0 ? "all as written" : <strong>not as written: {wrong.join(", ")}</strong>}
                {words && `. ${words}`}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

function Report({ summary, children }: Readonly<{ summary: string; children: React.ReactNode }>) {
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2.5 font-medium">{summary}</summary>
      <div className="pb-4">{children}</div>
    </details>
  );
}
