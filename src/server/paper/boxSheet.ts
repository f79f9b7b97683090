import { permitState } from "../../core/words/en/permitState";
import type { Paper } from "../../workers/renderPdf";
import QRCode from "qrcode";
import type { Content } from "pdfmake/interfaces";
import type { LedgerHead } from "../ledger/headFile";
import type { BoxView } from "../box/boxView";
import { siteTime } from "../runtime/siteTime";
import { CAUTION, foot, heading, mono, pair, rule, STYLES, table } from "./parts";

/** What hangs beside a lock box: which keys are inside, whose locks are on it, and room for who comes and goes. */
export async function boxSheet(box: BoxView, url: string, head: LedgerHead, now_ms: number): Promise<Paper> {
  const qr = await QRCode.toString(url, { type: "svg", margin: 0 });
  const hung: Content[][] = [
    ...box.standing.map((lock) => [mono(lock.lock), lock.person, lock.role, siteTime(lock.since_ms), ""]),
    ...box.on.map((lock) => [
      mono(lock.lock),
      lock.person,
      `permit ${lock.permit}${lock.point ? `, on ${lock.point}` : ""}`,
      siteTime(lock.since_ms),
      "",
    ]),
  ];
  while (hung.length < 14) hung.push([" ", "", "", "", ""]);
  return {
    document: {
      info: { title: `Lock box ${box.life.number}` },
      content: [
        heading({
          kind: "Lock box",
          number: box.life.number,
          title: box.jobs.map((job) => job.title).join("; "),
          line: box.jobs.map((job) => `Job ${job.number} · isolation ${job.isolation}, ${job.state}`).join(" · "),
          qr,
        }),
        { text: `The box is ${box.life.state}.`, bold: true, margin: [0, 4, 0, 0] },
        rule(),
        pair(
          "Permits on it",
          box.permits.map((one) => `${one.number}, ${permitState(one.state)}, holder ${one.lead}`).join("; ") || "none",
        ),
        { text: "Keys inside", style: "head" },
        table(
          ["Lock", "Hangs on", "Key"],
          box.keys.map((key) => [mono(key.lock), mono(key.point), key.at === "box" ? "in the box" : `with ${key.by}`]),
          [140, 160, "*"],
        ),
        { text: "Hung on the box, in this order; they come off the other way", style: "head" },
        table(["Lock", "Name", "For", "On", "Off"], hung, [70, "*", 130, 95, 95]),
        {
          text: "Hang your own lock, sign, keep your own key. The first lock is the last off. Nobody takes off another's.",
          margin: [0, 8, 0, 0],
        },
        CAUTION,
      ],
      styles: STYLES,
    },
    foot: foot(head, now_ms),
  };
}
