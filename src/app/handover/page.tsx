import type { Metadata } from "next";
import { ANSWER_FOR_A_SHIFT, keyOf } from "@/core/handover/handover";
import { database } from "@/server/db/database";
import { handoverItems } from "@/server/handover/handoverItems";
import { lastHandover, type StoredHandover } from "@/server/handover/handoverStore";
import { peopleToChoose } from "@/server/job/jobView";
import { requirePerson } from "@/server/people/session";
import { namesOf } from "@/server/people/signIn";
import { openPermits } from "@/server/permit/openPermits";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { Field } from "@/ui/act/Field";
import { HandoverForm, type HandoverRow } from "@/ui/handover/HandoverForm";
import { dayAndClock } from "@/ui/text/when";

export const metadata: Metadata = { title: "Shift handover" };

const HREFS: readonly (readonly [RegExp, string])[] = [
  [/^J-\d+$/, "/jobs/"],
  [/^P-\d+$/, "/permits/"],
];

/** One shift to the next: everything that is so now, gone through together and signed by both. */
export default async function HandoverPage() {
  const person = await requirePerson();
  const db = database();
  const now_ms = requestTime_ms();
  const last = lastHandover(db);
  const known = new Set(last?.items.map(keyOf));
  const items = handoverItems(db, now_ms, last?.at_ms ?? 0);
  const rows = items.map((item): HandoverRow => {
    const at = HREFS.find(([pattern]) => pattern.test(item.subject))?.[1];
    return {
      ...item,
      key: keyOf(item),
      href: at ? `${at}${item.subject}` : null,
      isNew: last !== null && !known.has(keyOf(item)),
    };
  });
  const answers = person.roles.some((role) => ANSWER_FOR_A_SHIFT.includes(role));
  const coming = peopleToChoose()
    .filter(({ id, roles }) => id !== person.id && roles.some((role) => ANSWER_FOR_A_SHIFT.includes(role as never)))
    .map(({ id, name }) => ({ id, name }));
  const live = openPermits(db, now_ms).flatMap(({ now }) => (now.state === "live" ? [now.number] : []));
  const bold = rows.filter((row) => row.bold).length;
  return (
    <div className="max-w-6xl px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Shift handover</h1>
        <p className="opacity-85">
          <span className="num">{rows.length}</span> to go through, <span className="num">{bold}</span> of them bold
        </p>
        <a href="/handover/paper" className="link ml-auto">
          On paper (PDF)
        </a>
      </div>
      <Last last={last} answers={answers} />
      {rows.length === 0 ? (
        <p>Nothing stands open.</p>
      ) : (
        <>
          {!answers && (
            <p className="mb-4">
              A coordinator, an issuer or an operator hands the shift over. This is what is so now.
            </p>
          )}
          {answers ? <HandoverForm rows={rows} coming={coming} live={live} /> : <ReadOnly rows={rows} />}
        </>
      )}
    </div>
  );
}

function ReadOnly({ rows }: { rows: readonly HandoverRow[] }) {
  return (
    <ul className="divide-base-300 border-base-300 divide-y border-y">
      {rows.map((row) => (
        <li key={row.key} className="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-x-4 py-2">
          <span className="tag">{row.subject}</span>
          <span className={row.bold ? "font-semibold" : ""}>{row.words}</span>
        </li>
      ))}
    </ul>
  );
}

/** The last one, and what was asked at it. */
function Last({ last, answers }: { last: StoredHandover | null; answers: boolean }) {
  const timeZone = siteTimeZone();
  if (last === null) return <p className="mb-6">None was signed yet.</p>;
  const nameOf = namesOf(database());
  return (
    <div className="mb-6 space-y-2">
      <p>
        Last: <span className="tag">{last.number}</span>, {dayAndClock(last.at_ms, timeZone)}, from {nameOf(last.going)}{" "}
        to {nameOf(last.coming)}, <span className="num">{last.items.length}</span> items
        {last.remarks !== "" && `. ${last.remarks}`}
      </p>
      {last.asked.map(({ item, words, answer }) => (
        <div key={item} className={answer ? "" : "border-warning border-l-4 px-3 py-1"}>
          <p>
            {item} <strong>{words}</strong>
          </p>
          {answer ? (
            <p>
              {nameOf(answer.by)}, {dayAndClock(answer.at_ms, timeZone)}: {answer.words}
            </p>
          ) : (
            answers && (
              <ActForm
                act="shift.answer"
                label={`Answer: ${words}`}
                fixed={{ handover: last.number, item }}
                button="Answer"
                compact
              >
                <Field label="The answer" name="words" maxLength={500} />
              </ActForm>
            )
          )}
        </div>
      ))}
    </div>
  );
}
