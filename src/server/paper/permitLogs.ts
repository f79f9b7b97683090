import type { Content } from "pdfmake/interfaces";
import { readingWords } from "../../core/permit/record/logWords";
import { entriesOf } from "../../core/permit/record/permitLog";
import type { PermitView } from "../permit/permitView";
import { siteTime } from "../runtime/siteTime";
import { mono, pair, table } from "./parts";

/** Rows to write in by hand, for the day the computer is down. */
function blanks(count: number, columns: number): Content[][] {
  return Array.from({ length: count }, () => Array.from({ length: columns }, (): Content => " "));
}

/** What only its kind says, as label and text. */
export function detailPairs(permit: PermitView): Content[] {
  const { details } = permit;
  switch (details.kind) {
    case "general":
      return [];
    case "minor isolation":
      return [pair("Short route", "one person, one lock, begun and ended alone within a shift")];
    case "hot work":
      return [
        pair("Hot work", `${details.works.join(", ")}; ${details.inEquipment ? "in or on equipment" : "in the open"}`),
        pair("Place", `x ${details.x_m} m, y ${details.y_m} m, level ${details.level_m} m`),
        pair("Fire watches", `${permit.watchersNeeded}; afterwards ${details.afterWatch}`),
      ];
    case "confined space entry":
      return [
        pair("Space", `${details.space}, ${details.volume_m3} m³, ${details.depth_m} m deep`),
        pair("Entrants", `at most ${details.most}; spoken to every ${details.talk_min} min`),
        pair(
          "Purge",
          permit.purge?.need_s ? `${Math.ceil(permit.purge.need_s / 60)} min each time` : "a larger blower",
        ),
        pair("Rescue", details.rescue),
      ];
    case "line break":
      return [pair("Line", `${details.line}; first flange ${details.flange}`), pair("Release", details.release)];
    case "electrical work":
      return [
        pair("Conductors", `${details.voltage_V} V${details.live ? `, stays live: ${details.liveReason}` : ""}`),
        pair("Gloves", details.gloves),
      ];
    case "work at height":
      return [
        pair("Height", `${details.height_m} m: ${details.protection}`),
        pair("Harnesses", details.harnesses.join(", ")),
      ];
    case "pressure test":
      return [
        pair("Test", `${details.pressure_Pa / 1e5} bar of ${details.medium} in ${details.volume_m3} m³`),
        pair("Gauge", details.gauge),
      ];
    case "safeguard bypass":
      return [
        pair("Safeguard", `${details.safeguard}: ${details.why}`),
        pair("Instead", details.compensation),
        pair("Back by", siteTime(details.until_ms)),
      ];
  }
}

/** What was looked at, the air, who watched, who was inside, what was stopped: as the log has it, with room to go on. */
export function permitLogs(permit: PermitView): Content[] {
  const { log } = permit.life;
  const content: Content[] = [];
  const add = (title: string, heads: string[], rows: Content[][], widths: (number | string)[], room = 0) => {
    if (rows.length + room === 0) return;
    content.push({ text: title, style: "head" }, table(heads, [...rows, ...blanks(room, heads.length)], widths));
  };
  const isOpen = !["closed", "cancelled"].includes(permit.state);
  add(
    "Asked of it",
    ["", "What", "Source"],
    permit.asks.map(({ words, unmet, source }) => [unmet === null ? "met" : "open", words, source]),
    [34, "*", 130],
  );
  if (permit.air !== null) {
    add(
      "Air",
      ["When", "Where", "Read", "With", "By"],
      entriesOf(log, "air").map(({ at_ms, point, reading, instrument, against, by }) => [
        siteTime(at_ms),
        point,
        `${readingWords(reading)}${against.length > 0 ? `  AGAINST: ${against.join(", ")}` : ""}`,
        mono(instrument),
        permit.nameOf(by),
      ]),
      [92, 90, "*", 44, 74],
      isOpen ? 4 : 0,
    );
  }
  if (permit.post !== null) {
    add(
      permit.post === "fire watch" ? "Fire watch" : "Attendant",
      ["Name", "On", "Off"],
      permit.watches.map(({ name, from_ms, to_ms }) => [
        name,
        siteTime(from_ms),
        to_ms === null ? "" : siteTime(to_ms),
      ]),
      ["*", 120, 120],
      isOpen ? 3 : 0,
    );
  }
  if (permit.entry !== null) {
    add(
      "Inside",
      ["Name", "In", "Out"],
      permit.entry.stays.map(({ name, in_ms, out_ms }) => [
        name,
        siteTime(in_ms),
        out_ms === null ? "" : siteTime(out_ms),
      ]),
      ["*", 120, 120],
      isOpen ? 6 : 0,
    );
  }
  add(
    "Watch afterwards",
    ["Due", "Made", "Seen"],
    (permit.afterWatch?.checks ?? []).map(({ due_ms, done, missed }) => [
      siteTime(due_ms),
      done ? siteTime(done.at_ms) : missed ? "missed" : "",
      done?.words ?? "",
    ]),
    [110, 110, "*"],
  );
  add(
    "Stopped, let go on, revalidated",
    ["When", "What", "By"],
    permit.story
      .filter(
        ({ type, words }) =>
          ["stopped", "ran out", "break begun", "break ended"].includes(type) ||
          /^(Work goes on|Revalidated)/.test(words),
      )
      .map(({ at_ms, words, by }) => [siteTime(at_ms), words, by || "the clock"]),
    [92, "*", 90],
  );
  add(
    "Copies, caps and blinds",
    ["What", "Where", "Back"],
    [
      ...permit.copies.map(({ copy, where, second, returned_ms }) => [
        second ? `Second copy ${copy}` : `Copy ${copy}`,
        where,
        returned_ms === null ? "" : siteTime(returned_ms),
      ]),
      ...permit.putIn.map(({ what, where, out_ms }) => [what, where, out_ms === null ? "" : siteTime(out_ms)]),
    ],
    [120, "*", 110],
  );
  return content;
}
