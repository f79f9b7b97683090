import { permitState } from "../../core/words/en/permitState";
import { isDone } from "../../core/isolation/failures";
import type { Paper } from "../../workers/renderPdf";
import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { PermitView } from "../permit/permitView";
import type { LedgerHead } from "../ledger/headFile";
import { siteTime } from "../runtime/siteTime";
import { signedBy } from "../../core/permit/record/permitLog";
import { detailPairs, permitLogs } from "./permitLogs";
import { BLANK, CAUTION, foot, heading, mono, pair, rule, STYLES, table } from "./parts";

const SIGNED = [
  ["check", "Checked"],
  ["authorise", "Authorised"],
  ["approve", "Approved"],
  ["inspect", "Inspected"],
] as const;

function signature(permit: PermitView, act: (typeof SIGNED)[number][0]): Content {
  const signed = signedBy(permit.life.log, act);
  return signed ? `${permit.nameOf(signed.by)}\n${siteTime(signed.at_ms)}` : " ";
}

/** A permit on paper, with its logs as they stand: one page for a general one, more where logs are kept. */
export async function permitPaper(
  permit: PermitView,
  /** The number of the copy it is printed for; null: of none. */
  copy: number | null,
  head: LedgerHead,
  url: string,
  now_ms: number,
): Promise<Paper> {
  const qr = await QRCode.toString(url, { type: "svg", margin: 0 });
  const isolation = permit.job.isolation;
  const locked = isolation?.steps.filter((step) => step.kind === "lock" && step.done) ?? [];
  const proofs = isolation?.steps.filter((step) => step.kind === "prove" && isDone(step)) ?? [];
  const signOns = permit.signOns.map((signOn) => [
    signOn.name,
    { text: signOn.lock, font: "Mono" },
    siteTime(signOn.on_ms),
    signOn.off_ms === null ? "" : siteTime(signOn.off_ms),
  ]);
  while (signOns.length < 6) signOns.push([" ", { text: "", font: "Mono" }, "", ""]);
  const hung = permit.copies.find((one) => one.copy === copy);
  const mark = hung ? `${hung.second ? ", SECOND COPY" : ", COPY"} ${hung.copy}, hangs ${hung.where}` : "";
  const content: Content[] = [
    heading({
      kind: `Permit to work: ${permit.kind}${mark}`,
      number: permit.number,
      title: permit.job.title,
      line: `Job ${permit.job.number} · isolation ${isolation?.number ?? "none"} · box ${permit.job.boxes.map((box) => box.number).join(", ") || "none"}`,
      qr,
    }),
    { text: `State when printed: ${permitState(permit.state).toUpperCase()}`, bold: true, margin: [0, 4, 0, 0] },
    rule(),
    pair("Valid", `${siteTime(permit.validFrom_ms)}  to  ${siteTime(permit.validTo_ms)}. At that time work stops.`),
    pair("Work permitted", permit.words),
    pair("Where", permit.job.job.faces.map((face) => `${face.place} (${face.how.join(", ")})`).join("; ")),
    pair("Hazards", permit.hazards),
    pair("Precautions", permit.precautions),
    ...detailPairs(permit),
    ...(permit.previous ? [pair("Goes on from", mono(permit.previous))] : []),
    rule(),
    { text: "Isolated and locked", style: "head" },
    table(
      ["Device", "Lock", "When"],
      locked.map((step) => [mono(step.subject), mono(step.done?.lock ?? ""), siteTime(step.done!.at_ms)]),
      [160, 120, "*"],
    ),
    { text: "Proved", style: "head" },
    table(
      ["At", "What", "Reading"],
      proofs.map((step) => [
        mono(step.subject),
        step.words,
        mono(`${step.done?.reading ?? ""} ${step.limit?.unit ?? ""}`),
      ]),
      [90, "*", 80],
    ),
    { text: "Signatures", style: "head" },
    table(
      SIGNED.map(([, words]) => words),
      [SIGNED.map(([act]) => signature(permit, act))],
      SIGNED.map(() => "*"),
    ),
    table(
      ["Issuer", "Holder", "Handed back and closed"],
      [
        [
          `${permit.issuer ?? "not issued"}\n\n${BLANK}`,
          `${permit.holder}\n\n${BLANK}`,
          `${permit.closedBy ?? ""}\n\n${BLANK}`,
        ],
      ],
      ["*", "*", "*"],
    ),
    { text: "Signed on", style: "head" },
    table(["Name", "Own lock", "On", "Off"], signOns, ["*", 90, 120, 120]),
    ...permitLogs(permit),
    CAUTION,
  ];
  return {
    document: {
      info: { title: `Permit ${permit.number}` },
      content,
      styles: STYLES,
    },
    foot: foot(
      head,
      now_ms,
      ` · plant revision ${permit.plantRevision} · engine ${permit.engineVersion}, rules ${permit.ruleProfile}`,
    ),
  };
}
