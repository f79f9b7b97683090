import type { Paper } from "../../workers/renderPdf";
import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { JobView } from "../job/jobView";
import { siteTime } from "../runtime/siteTime";
import type { LedgerHead } from "../ledger/headFile";
import { foot } from "./parts";

/** One tag for each point of an isolation, four to a page, to be cut out and hung with the lock. */
export async function tagSheet(view: JobView, url: string, head: LedgerHead, now_ms: number): Promise<Paper> {
  const isolation = view.isolation;
  const points = isolation?.steps.filter((step) => step.kind === "lock") ?? [];
  const tags = await Promise.all(
    points.map(async (step, index): Promise<Content> => {
      const qr = await QRCode.toString(`${url}?point=${encodeURIComponent(step.subject)}`, { type: "svg", margin: 0 });
      const line = (label: string, text: string, font = "Text"): Content => ({
        columns: [
          { text: label, width: 62, fontSize: 7.5, margin: [0, 1.5, 0, 0] },
          { text, width: "*", font },
        ],
        margin: [0, 1, 0, 1],
      });
      return {
        unbreakable: true,
        margin: [6, 4, 6, 8],
        stack: [
          { text: "DO NOT OPERATE", bold: true, fontSize: 14, characterSpacing: 1 },
          {
            columns: [
              { text: step.subject, font: "Mono", bold: true, fontSize: 20 },
              { svg: qr, width: 54, alignment: "right" },
            ],
            margin: [0, 2, 0, 4],
          },
          line("Why", `${view.title} (job ${view.number})`),
          line(
            "Isolation",
            `${isolation?.number ?? ""}, point ${index + 1} of ${points.length}, box ${view.boxes.map((box) => box.number).join(", ")}`,
          ),
          line("Who", step.done ? (view.nameOf[step.done.by] ?? "") : "………………………………"),
          line("Reach them", "………………………………"),
          line("Lock", step.done?.lock ?? "…………………", "Mono"),
          line("Hung", step.done ? siteTime(step.done.at_ms) : "…………………"),
          line("Expected end", siteTime(view.windowTo_ms)),
          line("Signature", "………………………………"),
        ],
      };
    }),
  );
  const rows: Content[][] = [];
  for (let i = 0; i < tags.length; i += 2) rows.push([tags[i]!, tags[i + 1] ?? { text: "" }]);
  return {
    document: {
      info: { title: `Tags of isolation ${isolation?.number ?? ""}` },
      content: [
        {
          table: {
            widths: ["50%", "50%"],
            body: rows.length > 0 ? rows : [[{ text: "No points." }, { text: "" }]],
            dontBreakRows: true,
          },
          layout: "to be cut",
        },
      ],
    },
    foot: foot(head, now_ms),
  };
}
