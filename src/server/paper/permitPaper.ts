import QRCode from "qrcode";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import type { PermitView } from "../queries/board";
import type { LedgerHead } from "../ledger/append";
import { siteTime } from "../siteTime";

/** A general permit on paper: one page, two when many people sign on. */
export async function permitPaper(
  permit: PermitView,
  head: LedgerHead,
  url: string,
  now_ms: number,
): Promise<TDocumentDefinitions> {
  const qr = await QRCode.toString(url, { type: "svg", margin: 0 });
  const isolation = permit.job.isolation;
  const locked = isolation?.steps.filter((step) => step.kind === "lock" && step.done) ?? [];
  const proofs = isolation?.steps.filter((step) => step.kind === "prove" && step.done) ?? [];
  const blank = "\u2026\u2026\u2026\u2026\u2026\u2026\u2026\u2026\u2026\u2026\u2026\u2026";
  const signOns = permit.signOns.map((signOn) => [
    signOn.name,
    { text: signOn.lock, font: "Mono" },
    siteTime(signOn.on_ms),
    signOn.off_ms === null ? "" : siteTime(signOn.off_ms),
  ]);
  while (signOns.length < 6) signOns.push([" ", { text: "", font: "Mono" }, "", ""]);
  const content: Content[] = [
    {
      columns: [
        [
          { text: "PERMIT TO WORK", fontSize: 10, characterSpacing: 2 },
          { text: permit.number, font: "Mono", fontSize: 26, bold: true },
          { text: `${permit.job.title}`, fontSize: 12, margin: [0, 2, 0, 0] },
          {
            text: `Job ${permit.job.number} · isolation ${isolation?.number ?? "none"} · box ${permit.job.boxes.map((box) => box.number).join(", ") || "none"}`,
          },
          { text: `State when printed: ${permit.runOut ? "RUN OUT" : permit.state}`, bold: true, margin: [0, 4, 0, 0] },
        ],
        { svg: qr, width: 84, alignment: "right" },
      ],
    },
    rule(),
    pair("Valid", `${siteTime(permit.validFrom_ms)}  to  ${siteTime(permit.validTo_ms)}. At that time work stops.`),
    pair("Work permitted", permit.words),
    pair("Where", permit.job.job.faces.map((face) => `${face.place} (${face.how.join(", ")})`).join("; ")),
    pair("Hazards", permit.hazards),
    pair("Precautions", permit.precautions),
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
      ["Issuer", "Holder", "Handed back and closed"],
      [
        [
          `${permit.issuer ?? "not issued"}\n\n${blank}`,
          `${permit.holder}\n\n${blank}`,
          `${permit.closedBy ?? ""}\n\n${blank}`,
        ],
      ],
      ["*", "*", "*"],
    ),
    { text: "Signed on", style: "head" },
    table(["Name", "Own lock", "On", "Off"], signOns, ["*", 90, 120, 120]),
    {
      text: "A planning and record aid. Local codes and licensed people decide. Stop the job when it looks wrong: anyone can.",
      italics: true,
      margin: [0, 10, 0, 0],
    },
  ];
  return {
    info: { title: `Permit ${permit.number}` },
    content,
    styles: STYLES,
    footer: (page, pages) => ({
      margin: [40, 14, 40, 0],
      fontSize: 7.5,
      columns: [
        {
          text: `Ledger row ${head.seq}, ${head.hash.slice(0, 16)} · plant revision ${permit.plantRevision} · engine ${permit.engineVersion}, rules ${permit.ruleProfile}`,
          width: "*",
        },
        { text: `Printed ${siteTime(now_ms)} · page ${page} of ${pages}`, alignment: "right", width: "auto" },
      ],
    }),
  };
}

export const STYLES = {
  head: { bold: true, fontSize: 10.5, margin: [0, 10, 0, 3] as [number, number, number, number] },
};

function rule(): Content {
  return { canvas: [{ type: "line", x1: 0, y1: 6, x2: 515, y2: 6, lineWidth: 0.8 }], margin: [0, 2, 0, 6] };
}

function pair(label: string, text: string): Content {
  return {
    columns: [
      { text: label, width: 100, bold: true },
      { text, width: "*" },
    ],
    margin: [0, 2, 0, 2],
  };
}

function mono(text: string): Content {
  return { text, font: "Mono" };
}

function table(heads: string[], rows: Content[][], widths: (number | string)[]): Content {
  return {
    table: { headerRows: 1, widths, body: [heads.map((text) => ({ text, bold: true, fontSize: 8.5 })), ...rows] },
    layout: {
      hLineWidth: () => 0.5,
      vLineWidth: () => 0,
      paddingTop: () => 3,
      paddingBottom: () => 3,
      hLineColor: () => "#777",
    },
  };
}
