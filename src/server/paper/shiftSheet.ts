import type { Paper } from "../../workers/renderPdf";
import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { LedgerHead } from "../ledger/headFile";
import { openFailures } from "../../core/isolation/failures";
import { stepLabel } from "../../core/procedure/steps";
import { notHeldClause } from "../../core/words/en/notHeld";
import type { HandedOn } from "../permit/handedOn";
import type { JobView } from "../job/jobView";
import { siteTime } from "../runtime/siteTime";
import { BLANK, CAUTION, foot, heading, mono, rule, STYLES, table } from "./parts";

export type ShiftSheet = Readonly<{
  jobs: readonly JobView[];
  /** Temporary de-isolations that are asked for or running, in words. */
  lifted: readonly string[];
  /** Removals of locks that are not over, in words. */
  removals: readonly string[];
  /** Earths that stand, by isolation. */
  earths: readonly Readonly<{ isolation: string; number: string; place: string }>[];
  /** What is handed on of every open permit, by number. */
  permits: ReadonlyMap<string, HandedOn>;
}>;

/** What one shift tells the next, job by job: what stands, who is on, what runs out, what is due, what is not as planned. */
export async function shiftSheet(
  { jobs, lifted, removals, earths, permits }: ShiftSheet,
  url: string,
  head: LedgerHead,
  now_ms: number,
): Promise<Paper> {
  const qr = await QRCode.toString(url, { type: "svg", margin: 0 });
  const standing = jobs.filter((job) => job.isolation !== null && job.isolation.state !== "restored");
  const content: Content[] = [
    heading({
      kind: "Shift handover",
      number: siteTime(now_ms),
      title: `Isolations that stand: ${standing.length}. Active permits: ${jobs.flatMap((job) => job.permits).filter((one) => one.state === "live").length}.`,
      line: "Read it through together, walk what is in bold, then sign.",
      qr,
    }),
    rule(),
    ...(lifted.length + removals.length > 0
      ? [
          { text: "First of all", style: "head" } as Content,
          { ul: [...lifted, ...removals].map((text) => ({ text, bold: true })) } as Content,
        ]
      : []),
    ...jobs.map((job): Content => {
      const { isolation } = job;
      const stuck = isolation?.steps.filter((step) => step.stuck) ?? [];
      const on = [...new Set(job.boxes.flatMap((box) => box.locks.map((lock) => lock.person)))];
      const own = earths.filter((earth) => earth.isolation === isolation?.number);
      const open = job.permits.flatMap(({ number }) => permits.get(number) ?? []);
      const lines: string[] = [
        isolation
          ? `Isolation ${isolation.number}: ${isolation.state}. Locked: ${job.held.join(", ") || "nothing"}.`
          : "Nothing isolated.",
        ...job.boxes.map(
          (box) =>
            `Box ${box.number}: ${box.state}; over all ${box.standing.map(({ name }) => name).join(", ") || "nobody"}; on it ${on.join(", ") || "nobody"}.`,
        ),
        ...own.map((earth) => `Earth ${earth.number} stands at ${earth.place}.`),
        ...job.permits
          .filter((permit) => permit.state !== "closed" && permit.state !== "cancelled")
          .map(
            (permit) =>
              `Permit ${permit.number}: ${permit.runOut ? "RUN OUT" : permit.state}, until ${siteTime(permit.validTo_ms)}, led by ${permit.holder}.`,
          ),
        ...open.flatMap((one) => one.lines.map((line) => `${one.number}, ${line}`)),
        ...(job.review ? [`Next review ${siteTime(job.review.due_ms)}${job.review.overdue ? ", OVERDUE" : ""}.`] : []),
      ];
      const bold = [
        ...(job.planFault === null ? [] : [`STOP, everybody off: ${notHeldClause(job.planFault)}.`]),
        ...(isolation?.steps ?? []).flatMap((step) =>
          openFailures(step).map(
            ({ what, reading, unit, at_ms }) =>
              `Not proved: ${stepLabel(step)}, ${reading === null ? what : `${reading} ${unit}`}, ${siteTime(at_ms)}.`,
          ),
        ),
        ...open.flatMap((one) => one.bold.map((line) => `${one.number}, ${line}`)),
        ...job.stale.map((proof) => `Prove again: ${proof}.`),
        ...stuck.map((step) => `Cannot be done as planned: ${step.words} ${step.stuck!.words}`),
      ];
      return {
        unbreakable: true,
        margin: [0, 8, 0, 0],
        stack: [
          {
            columns: [
              { ...(mono(job.number) as object), width: 60, bold: true },
              { text: job.title, bold: true },
            ],
          } as Content,
          { text: `Next: ${job.next?.words ?? "closed"}${job.next ? ` (${job.next.who.join(" or ")})` : ""}` },
          { ul: [...lines.map((text) => ({ text })), ...bold.map((text) => ({ text, bold: true }))] },
        ],
      };
    }),
    { text: "Signed", style: "head" },
    table(["Going", "Coming", "Walked together"], [[`\n${BLANK}`, `\n${BLANK}`, `\n${BLANK}`]], ["*", "*", "*"]),
    CAUTION,
  ];
  return { document: { info: { title: "Shift handover" }, content, styles: STYLES }, foot: foot(head, now_ms) };
}
