import type { Content } from "pdfmake/interfaces";
import type { Paper } from "../../workers/renderPdf";
import type { LedgerHead } from "../ledger/headFile";
import { siteTime } from "../runtime/siteTime";

/** Parts that every paper is put together from. */

export const STYLES = {
  head: { bold: true, fontSize: 10.5, margin: [0, 10, 0, 3] as [number, number, number, number] },
};

export const CAUTION: Content = {
  text: "A planning and record aid. Local codes and licensed people decide. Stop the job when it looks wrong: anyone can.",
  italics: true,
  margin: [0, 10, 0, 0],
};

/** A line to write or sign on. */
export const BLANK = "…………………………………";

export function rule(): Content {
  return { canvas: [{ type: "line", x1: 0, y1: 6, x2: 515, y2: 6, lineWidth: 0.8 }], margin: [0, 2, 0, 6] };
}

export function pair(label: string, text: Content): Content {
  return {
    columns: [
      { text: label, width: 100, bold: true },
      { text: text as string, width: "*" },
    ],
    margin: [0, 2, 0, 2],
  };
}

export function mono(text: string): Content {
  return { text, font: "Mono" };
}

export function table(heads: string[], rows: Content[][], widths: (number | string)[]): Content {
  return {
    table: { headerRows: 1, widths, body: [heads.map((text) => ({ text, bold: true, fontSize: 8.5 })), ...rows] },
    layout: "ruled",
  };
}

/** Title, big number, what it is about, and a code that leads to its page. */
export function heading(p: { kind: string; number: string; title: string; line: string; qr: string }): Content {
  return {
    columns: [
      [
        { text: p.kind.toUpperCase(), fontSize: 10, characterSpacing: 2 },
        { text: p.number, font: "Mono", fontSize: 26, bold: true },
        { text: p.title, fontSize: 12, margin: [0, 2, 0, 0] },
        { text: p.line },
      ],
      { svg: p.qr, width: 84, alignment: "right" },
    ],
  };
}

/** At the foot: which ledger it was printed from, so that a paper can be checked against it. */
export function foot(head: LedgerHead, now_ms: number, more = ""): Paper["foot"] {
  return {
    left: `Ledger row ${head.seq}, ${head.hash.slice(0, 16)}${more}`,
    right: `Printed ${siteTime(now_ms)}`,
  };
}
