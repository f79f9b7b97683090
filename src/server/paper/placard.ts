import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { Paper } from "../../workers/renderPdf";
import type { PlannedStep } from "../../core/procedure/steps";
import type { LedgerHead } from "../ledger/headFile";
import type { VersionView } from "../library/procedureView";
import { siteTime } from "../runtime/siteTime";
import { CAUTION, foot, heading, mono, pair, rule, STYLES, table } from "./parts";

/** What hangs at the machine: how it is isolated for this work, who approved that, and until when it is looked at again. */
export async function placard(
  version: VersionView,
  steps: readonly PlannedStep[],
  p: Readonly<{ url: string; head: LedgerHead; now_ms: number }>,
): Promise<Paper> {
  const { content, life } = version;
  const qr = await QRCode.toString(p.url, { type: "svg", margin: 0 });
  const signed = (part: "trade" | "equipment") => {
    const one = version.signed.find((signature) => signature.part === part);
    return one ? `${one.by}, ${siteTime(one.at_ms)}` : "not yet";
  };
  const rows = (phase: "isolate" | "restore"): Content[][] =>
    steps
      .filter((step) => step.phase === phase)
      .map((step, index) => [String(index + 1), step.words, step.plate === null ? "" : mono(step.plate)]);
  const list = (phase: "isolate" | "restore") => table(["", "Step", "Plate"], rows(phase), [18, "*", 70]);
  return {
    document: {
      info: { title: `Isolation procedure ${life.number}, version ${life.version}` },
      content: [
        heading({
          kind: "Isolation procedure",
          number: life.number,
          title: version.title,
          line: `Version ${life.version} · ${version.equipment} · by the rules ${content.job.profile}`,
          qr,
        }),
        ...(version.unusable === null
          ? []
          : [{ text: `Not to be used: ${version.unusable}.`, bold: true, margin: [0, 6, 0, 0] } satisfies Content]),
        rule(),
        pair("Work", content.work),
        pair("Where", content.job.faces.map(({ place, how }) => `${place} (${how.join(", ")})`).join("; ")),
        pair("Points", mono(content.points.join("  "))),
        { text: "Isolate, in this order", style: "head" },
        list("isolate"),
        { text: "Hazards, and what is done about them", style: "head" },
        {
          ul: content.hazards
            .filter(({ verdict }) => verdict !== "rejected")
            .map(({ hazard, controls }) => `${hazard}: ${controls.join("; ")}`),
        },
        { text: "Restore, in this order", style: "head" },
        list("restore"),
        { text: "Approved", style: "head" },
        pair("Written", `${version.writer}, ${siteTime(life.writtenAt_ms)}`),
        pair("Trade", signed("trade")),
        pair("Equipment", signed("equipment")),
        pair("Inspect by", version.inspectionDue_ms === null ? "not approved" : siteTime(version.inspectionDue_ms)),
        {
          text: "It proves nothing by itself: at each use the points are judged on the plant of that day, locked, and proved. The code leads to its page, which says whether it still may be used.",
          margin: [0, 8, 0, 0],
        },
        CAUTION,
      ],
      styles: STYLES,
    },
    foot: foot(p.head, p.now_ms),
  };
}
