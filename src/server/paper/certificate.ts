import type { Paper } from "../../workers/renderPdf";
import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { WalkStep } from "../../core/isolation/isolation";
import type { Plan } from "../../core/plan/plan";
import { darkSentence, lossSentence } from "../../core/words/en/losses";
import { certificateLine } from "../../core/words/en/notHeld";
import type { LedgerHead } from "../ledger/headFile";
import type { JobView } from "../job/jobView";
import { siteTime } from "../runtime/siteTime";
import { BLANK, CAUTION, foot, heading, mono, pair, rule, STYLES, table } from "./parts";

/** The isolation on paper: what is locked, by whom, how it was proved, and the plant around the work as it stands. */
export async function certificate(
  view: JobView,
  drawing: string,
  url: string,
  head: LedgerHead,
  now_ms: number,
  plan: Plan,
): Promise<Paper> {
  const isolation = view.isolation!;
  const qr = await QRCode.toString(url, { type: "svg", margin: 0 });
  const who = (step: WalkStep) => (step.done ? (view.nameOf[step.done.by] ?? "") : "");
  const done = (...kinds: WalkStep["kind"][]) =>
    isolation.steps.filter((step) => step.phase !== "restore" && kinds.includes(step.kind) && step.done);
  const verifiedBy = (tag: string) => {
    const looked = done("verify").findLast((step) => step.subject === tag);
    return looked ? `${who(looked)}, ${siteTime(looked.done!.at_ms)}` : "";
  };
  const locks = done("lock").filter((step) => view.held.includes(step.subject));
  const bleeds = done("bleed");
  const others = done(
    "bar off",
    "position",
    "restrain",
    "run down",
    "release",
    "cool",
    "discharge",
    "earth",
    "purge",
    "inert",
    "test air",
  );
  const open = isolation.steps.filter((step) => step.phase === "isolate" && !step.done).length;
  const content: Content[] = [
    heading({
      kind: "Isolation certificate",
      number: isolation.number,
      title: view.title,
      line: `Job ${view.number} · box ${view.boxes.map((box) => box.number).join(", ") || "none"} · plant revision ${view.plantRevision}`,
      qr,
    }),
    {
      text: certificateLine(isolation.state, { openSteps: open, planFault: view.planFault, stale: view.stale }),
      bold: true,
      margin: [0, 6, 0, 0],
    },
    rule(),
    pair("Work", view.work),
    pair("Where", view.job.faces.map((face) => `${face.place} (${face.how.join(", ")})`).join("; ")),
    pair("Approved by", view.approvedBy ?? ""),
    { text: "Locked and tagged", style: "head" },
    locks.length === 0
      ? { text: "Nothing hangs." }
      : table(
          ["Device", "Lock", "Hung by", "Looked at by"],
          locks.map((step) => [
            mono(step.subject),
            mono(step.done!.lock ?? ""),
            `${who(step)}, ${siteTime(step.done!.at_ms)}`,
            verifiedBy(step.subject),
          ]),
          [100, 90, "*", "*"],
        ),
    ...lossesOf(plan, done("accept losses"), who),
    ...(bleeds.length > 0
      ? [
          { text: "Bleeds open and locked open", style: "head" } as Content,
          table(
            ["Bleed", "By"],
            bleeds.map((step) => [mono(step.subject), `${who(step)}, ${siteTime(step.done!.at_ms)}`]),
            [100, "*"],
          ),
        ]
      : []),
    ...(others.length > 0
      ? [
          { text: "Made harmless", style: "head" } as Content,
          table(
            ["At", "What", "By"],
            others.map((step) => [mono(step.subject), step.words, `${who(step)}, ${siteTime(step.done!.at_ms)}`]),
            [100, "*", 130],
          ),
        ]
      : []),
    { text: "Proofs", style: "head" },
    table(
      ["At", "What and how", "Reading", "By"],
      latest(done("prove")).map((step) => [
        mono(step.subject),
        { stack: [step.words, { text: how(step), fontSize: 8 }] },
        mono(`${step.done!.reading ?? ""} ${step.limit?.unit ?? ""}`),
        `${who(step)}, ${siteTime(step.done!.at_ms)}`,
      ]),
      [80, "*", 60, 110],
    ),
    ...(view.stale.length > 0
      ? [
          {
            text: `To be proved again before anybody goes on: ${view.stale.join("; ")}.`,
            bold: true,
            margin: [0, 6, 0, 0],
          } as Content,
        ]
      : []),
    {
      columns: [
        { text: `Isolated\n\n${BLANK}` },
        { text: `Verified\n\n${BLANK}` },
        { text: `Coordinator\n\n${BLANK}` },
      ],
      margin: [0, 18, 0, 0],
    },
    CAUTION,
    {
      text: "The plant around the work, as it stands",
      style: "head",
      pageBreak: "before",
      pageOrientation: "landscape",
    },
    {
      text: "Heavy is live, thin is cut off; a bar is a locked device, a double frame the work, a ring an open bleed.",
      fontSize: 8.5,
    },
    { svg: drawing, fit: [760, 420], margin: [0, 8, 0, 0] },
  ];
  return {
    document: {
      info: { title: `Isolation ${isolation.number}` },
      content,
      styles: STYLES,
    },
    foot: foot(head, now_ms),
  };
}

/** What else stops while it stands, and who of the plant signed that it may. */
function lossesOf(plan: Plan, signed: readonly WalkStep[], who: (step: WalkStep) => string): Content[] {
  const rows = [
    ...plan.goesDark.filter(({ isWork }) => !isWork).map((loss) => [loss.tag, darkSentence(loss)]),
    ...plan.alsoStops.map((row) => [row.tag, lossSentence(row)]),
  ];
  if (rows.length === 0) return [];
  const by = signed.map((step) => `${who(step)}, ${siteTime(step.done!.at_ms)}: ${step.done!.evidence?.words ?? ""}`);
  return [
    { text: "What else stops", style: "head" },
    table(
      ["What", "How, and what to do"],
      rows.map(([tag, words]) => [mono(tag!), words!]),
      [100, "*"],
    ),
    { text: by.length > 0 ? `Signed: ${by.join("; ")}` : "Not signed when printed.", margin: [0, 2, 0, 0] },
  ];
}

/** The last proof of each thing: done again, it stands in place of the earlier. */
function latest(proofs: readonly WalkStep[]): WalkStep[] {
  return [...new Map(proofs.map((step) => [`${step.subject} ${step.carrier}`, step])).values()];
}

function how(step: WalkStep): string {
  const evidence = step.done?.evidence;
  if (evidence?.readings) {
    const pairs = Object.entries(evidence.readings).map(([name, volts]) => `${name} ${volts} V`);
    const on = evidence.provingUnit ?? `${evidence.knownSource}, ${evidence.knownSource_V} V`;
    return `${pairs.join(", ")}. Tester ${evidence.tester}, proved before and after on ${on}.`;
  }
  if (evidence?.error !== undefined && evidence.error !== null) {
    return `${evidence.instrument ? `${evidence.instrument}, ` : ""}may be off by ${evidence.error} ${step.limit?.unit ?? ""}.`;
  }
  return "";
}
