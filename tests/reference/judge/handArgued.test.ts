import { HARMFUL, HARMLESS, SmallPlant } from "../../support/smallPlant";
import { gradeOf, type Asking } from "./asking";

/**
 * Plants small enough to be argued on paper, with the reason beside each. S feeds, P is where people work, V- are valves
 * that take a lock, [BL] a bleed. What is isolated is named last.
 */
const base = () => new SmallPlant().source("S", "fluid", HARMFUL).item("P", "vessel", { contents: HARMLESS });
/** S – each of these in a row – P; what begins with V is a valve, with SP a pipe. */
function row(...tags: string[]): SmallPlant {
  const plant = base();
  for (const tag of tags) {
    if (tag.startsWith("V")) plant.device(tag, "fluid");
    else if (tag.startsWith("B")) plant.device(tag, "fluid", { kind: "blind", positive: true });
    else if (tag.startsWith("NR")) plant.device(tag, "fluid", { kind: "check valve", credit: false });
    else if (tag.startsWith("FL")) plant.item(tag, "filter");
    else plant.item(tag, "pipe");
  }
  return plant.line("fluid", "S", ...tags, "P");
}
const dbb = () => row("V-1", "SP", "V-2").bleed("BL", "SP");

describe("what flows", () => {
  const cases: [string, SmallPlant, string, string, Asking?][] = [
    ["nothing isolated: it is lit", dbb(), "", "none"],
    ["one valve, nothing bled: one leak lights it", row("V-1"), "V-1", "unproved single"],
    [
      "one valve, the face bled: a leak shows there before anybody opens",
      row("V-1").bleed("BP", "P"),
      "V-1",
      "proved single",
    ],
    [
      "a gauge that cannot be opened to a safe place proves nothing",
      row("V-1")
        .item("BG", "bleed", { bleed: { safe: false, gauge: true } })
        .line("fluid", "P", "BG"),
      "V-1",
      "unproved single",
    ],
    ["two valves with a bled pipe between", dbb(), "V-1 V-2", "proved double"],
    ["two valves face to face have nothing between them to bleed", row("V-1", "V-2"), "V-1 V-2", "unproved double"],
    [
      "face to face with the face bled: two units, but proved only once",
      row("V-1", "V-2").bleed("BP", "P"),
      "V-1 V-2",
      "proved single",
    ],
    ["two valves with a pipe between that nothing bleeds", row("V-1", "SP", "V-2"), "V-1 V-2", "unproved double"],
    [
      "three in a row, a bleed between the last two: one proved space on the way is enough",
      row("V-1", "V-2", "SP", "V-3").bleed("BL", "SP"),
      "V-1 V-2 V-3",
      "proved double",
    ],
    [
      "three in a row, the outer two isolated: the middle one is a place, opened and locked it drains through",
      row("V-1", "V-2", "SP", "V-3").bleed("BL", "SP"),
      "V-1 V-3",
      "proved double",
    ],
    [
      "the middle one takes no lock: nobody may rely on it to stand open, and it stands undrained in the space",
      base()
        .device("V-1", "fluid")
        .item("SA", "pipe")
        .device("V-2", "fluid", { lockable: false })
        .item("SP", "pipe")
        .device("V-3", "fluid")
        .line("fluid", "S", "V-1", "SA", "V-2", "SP", "V-3", "P")
        .bleed("BL", "SP"),
      "V-1 V-3",
      "unproved double",
    ],
    [
      "a longer way round with no bleed: the worst of all ways counts, not the shortest",
      dbb()
        .device("V-3", "fluid")
        .item("SQ", "pipe")
        .item("SR", "pipe")
        .device("V-4", "fluid")
        .line("fluid", "S", "V-3", "SQ", "SR", "V-4", "P"),
      "V-1 V-2 V-3 V-4",
      "unproved double",
    ],
    [
      "a longer way round with one valve",
      dbb().device("V-3", "fluid").item("SQ", "pipe").line("fluid", "S", "SQ", "V-3", "P"),
      "V-1 V-2 V-3",
      "unproved single",
    ],
    ["a way round left open", dbb().item("SQ", "pipe").line("fluid", "S", "SQ", "P"), "V-1 V-2", "none"],
    [
      "a filter between them, pipe bled on one side only: what is behind the filter may be plugged off",
      row("V-1", "SA", "FL-1", "SP", "V-2").bleed("BL", "SP"),
      "V-1 V-2",
      "unproved double",
    ],
    [
      "a filter bled on both sides is drained itself",
      row("V-1", "SA", "FL-1", "SP", "V-2").bleed("BL", "SP").bleed("BA", "SA"),
      "V-1 V-2",
      "proved double",
    ],
    [
      "a check valve in the space, bled on one side",
      row("V-1", "SA", "NR-1", "SP", "V-2").bleed("BL", "SP"),
      "V-1 V-2",
      "unproved double",
    ],
    ["a check valve is no barrier", row("NR-1", "V-1"), "NR-1 V-1", "unproved single"],
    [
      "a check valve hanging on the work zone as a dead leg spoils nothing that is drained beside it",
      row("V-1")
        .bleed("BP", "P")
        .device("NR-1", "fluid", { kind: "check valve", credit: false })
        .line("fluid", "P", "NR-1"),
      "V-1",
      "proved single",
    ],
    [
      "behind that check valve a pipe nobody drains may push into the face",
      row("V-1")
        .bleed("BP", "P")
        .device("NR-1", "fluid", { kind: "check valve", credit: false })
        .item("SX", "pipe")
        .line("fluid", "P", "NR-1", "SX"),
      "V-1",
      "unproved single",
    ],
    [
      "the same leg, with a drained pipe between it and the face",
      row("V-1")
        .bleed("BP", "P")
        .item("ST", "pipe")
        .device("NR-1", "fluid", { kind: "check valve", credit: false })
        .item("SX", "pipe")
        .line("fluid", "P", "ST", "NR-1", "SX"),
      "V-1",
      "proved single",
    ],
    [
      "a dead leg on the space between proves nothing and spoils nothing",
      dbb().item("FX", "filter").item("SX", "pipe").line("fluid", "SP", "FX", "SX"),
      "V-1 V-2",
      "proved double",
    ],
    [
      "a second source keeps the space live: a bleed there runs for ever and shows nothing",
      dbb().source("S-2", "fluid").line("fluid", "S-2", "SP"),
      "V-1 V-2",
      "unproved double",
    ],
    [
      "that source isolated too: the space is dark again",
      dbb().source("S-2", "fluid").device("V-3", "fluid").line("fluid", "S-2", "V-3", "SP"),
      "V-1 V-2 V-3",
      "proved double",
    ],
    [
      "and against that second source only one barrier stands",
      dbb().source("S-2", "fluid").device("V-3", "fluid").line("fluid", "S-2", "V-3", "SP").bleed("BP", "P"),
      "V-1 V-2 V-3",
      "proved double",
      { source: "S-2" },
    ],
    [
      "what comes back by itself in the space keeps it live",
      dbb()
        .item("SX", "pipe", { source: [{ carrier: "fluid", feeding: false, regenerating: true }] })
        .line("fluid", "SX", "SP"),
      "V-1 V-2",
      "unproved double",
    ],
    [
      "a pump that another drive turns pushes into the space",
      row("V-1", "SP", "V-2")
        .bleed("BL", "SP")
        .item("PU", "pump")
        .item("M", "motor")
        .source("NET", "power")
        .line("fluid", "PU", "SP")
        .line("shaft", "M", "PU")
        .line("power", "NET", "M"),
      "V-1 V-2",
      "unproved double",
    ],
    [
      "its breaker open: nothing pushes",
      row("V-1", "SP", "V-2")
        .bleed("BL", "SP")
        .item("PU", "pump")
        .item("M", "motor")
        .source("NET", "power")
        .device("Q", "power", { kind: "breaker" })
        .line("fluid", "PU", "SP")
        .line("shaft", "M", "PU")
        .line("power", "NET", "Q", "M"),
      "V-1 V-2 Q",
      "proved double",
    ],
    [
      "two valves on one actuator supply fail together",
      base()
        .device("V-1", "fluid", { commonCause: "air" })
        .item("SP", "pipe")
        .device("V-2", "fluid", { commonCause: "air" })
        .line("fluid", "S", "V-1", "SP", "V-2", "P")
        .bleed("BL", "SP"),
      "V-1 V-2",
      "unproved single",
    ],
    [
      "with a third on its own there are two units, and a space",
      base()
        .device("V-1", "fluid", { commonCause: "air" })
        .item("SP", "pipe")
        .device("V-2", "fluid", { commonCause: "air" })
        .device("V-3", "fluid")
        .line("fluid", "S", "V-1", "SP", "V-2", "V-3", "P")
        .bleed("BL", "SP"),
      "V-1 V-2 V-3",
      "proved double",
    ],
    [
      "twin seats with an open body bleed, and another valve: two units, and the body is the space",
      base()
        .item("BB", "bleed", { bleed: { safe: true } })
        .device("V-1", "fluid", { bodyBleed: "BB" })
        .device("V-2", "fluid")
        .line("fluid", "S", "V-1", "V-2", "P")
        .line("fluid", "V-1", "BB"),
      "V-1 V-2",
      "proved double",
    ],
    [
      "twin seats alone are one unit",
      base()
        .item("BB", "bleed", { bleed: { safe: true } })
        .device("V-1", "fluid", { bodyBleed: "BB" })
        .line("fluid", "S", "V-1", "P")
        .line("fluid", "V-1", "BB")
        .bleed("BP", "P"),
      "V-1",
      "proved single",
    ],
    [
      "a bleed on the body of an isolated valve says nothing of the pipe",
      row("V-1", "SP", "V-2")
        .line("fluid", "V-2", "BX")
        .item("BX", "bleed", { bleed: { safe: true } }),
      "V-1 V-2",
      "unproved double",
    ],
    ["a blind on the only way", row("V-1", "B-1"), "V-1 B-1", "positive"],
    [
      "a blind on one way and one valve on another: the worst way",
      row("B-1").device("V-2", "fluid").line("fluid", "S", "V-2", "P"),
      "B-1 V-2",
      "unproved single",
    ],
    [
      "a blind on one way, block and bleed on the other",
      row("B-1")
        .device("V-2", "fluid")
        .item("SP", "pipe")
        .device("V-3", "fluid")
        .line("fluid", "S", "V-2", "SP", "V-3", "P")
        .bleed("BL", "SP"),
      "B-1 V-2 V-3",
      "proved double",
    ],
    ["a blind that is not fitted is a place that lets everything by", row("V-1", "B-1"), "V-1", "unproved single"],
    [
      "a drain behind its own valve drains: the valve is opened and locked",
      row("V-1", "SP", "V-2")
        .device("V-9", "fluid")
        .item("BL", "bleed", { bleed: { safe: true } })
        .line("fluid", "SP", "V-9", "BL"),
      "V-1 V-2",
      "proved double",
    ],
    [
      "that drain valve isolated as well: the last drain is stopped",
      row("V-1", "SP", "V-2")
        .device("V-9", "fluid")
        .item("BL", "bleed", { bleed: { safe: true } })
        .line("fluid", "SP", "V-9", "BL"),
      "V-1 V-2 V-9",
      "unproved double",
    ],
    [
      "a drain by a hose that is only there for a while",
      row("V-1", "SP", "V-2")
        .item("BL", "bleed", { bleed: { safe: true } })
        .hose("fluid", "SP", "BL"),
      "V-1 V-2",
      "unproved double",
    ],
    ["a bleed that the job struck out as blocked", dbb(), "V-1 V-2", "unproved double", { struck: ["BL"] }],
    ["a valve that the job struck out is no barrier", dbb(), "V-1 V-2", "unproved single", { struck: ["V-1"] }],
    [
      "a source's own valve is no barrier to it",
      new SmallPlant()
        .item("P", "vessel")
        .device("V-1", "fluid")
        .item("T", "tank")
        .item("V-0", "valve", {
          source: [{ carrier: "fluid" }],
          device: { stops: ["fluid"], credit: true, lockable: true, effort: 1 },
        })
        .line("fluid", "V-0", "T", "V-1", "P"),
      "V-0 V-1",
      "unproved single",
      { source: "V-0" },
    ],
    [
      "a valve that is itself the work is no barrier, and drains only when both its sides do",
      row("V-1", "SP", "V-2").bleed("BL", "SP"),
      "V-1 V-2",
      "unproved single",
      { face: "V-2" },
    ],
    [
      "the same with its far side bled as well",
      row("V-1", "SP", "V-2").bleed("BL", "SP").bleed("BP", "P"),
      "V-1 V-2",
      "proved single",
      { face: "V-2" },
    ],
    [
      "a valve that another energy holds in place",
      base()
        .device("V-1", "fluid", { heldBy: ["P"] })
        .line("fluid", "S", "V-1", "P"),
      "V-1",
      "none",
    ],
  ];
  test.each(cases.map(([reason, plant, isolated, grade, asking]) => [reason, grade, plant, isolated, asking] as const))(
    "%s: %s",
    (_, grade, plant, isolated, asking) => expect(gradeOf(plant, isolated, asking)).toBe(grade),
  );
});

describe("conductors, and what moves", () => {
  const wire = (rest: object, kind = "isolator") =>
    new SmallPlant()
      .source("S", "power")
      .device("Q", "power", { kind, ...rest })
      .item("P", "busbar", { voltage_V: 400 })
      .line("power", "S", "Q", "P");
  const drive = (rest: object) =>
    new SmallPlant()
      .source("S", "shaft")
      .device("C", "shaft", { kind: "coupling", ...rest })
      .item("P", "agitator")
      .line("shaft", "S", "C", "P");
  const at = { arrives: "power", scope: "energy" } as const;
  const on = { arrives: "shaft", scope: "energy" } as const;
  const cases: [string, SmallPlant, string, string, Asking][] = [
    ["an isolator with a lock", wire({}), "Q", "locked isolating device", at],
    ["the same without a lock is tagged only", wire({ lockable: false }), "Q", "tagged only", at],
    ["a visible break with a lock separates", wire({ positive: true }), "Q", "separated", at],
    ["a visible break that takes no lock does not", wire({ positive: true, lockable: false }), "Q", "tagged only", at],
    ["a load switch does not isolate visibly", wire({}, "load switch"), "Q", "locked switch", at],
    ["nor does a contactor without a lock", wire({ lockable: false }, "contactor"), "Q", "tagged only", at],
    [
      "two feeders, one isolated by a switch only: the worst way",
      wire({}).source("S-2", "power").device("K", "power", { kind: "load switch" }).line("power", "S-2", "K", "P"),
      "Q K",
      "locked switch",
      { ...at, source: "S-2" },
    ],
    ["a coupling taken out and locked restrains", drive({ positive: true }), "C", "restrained", on],
    [
      "a pin that nobody can lock does not restrain, and is no locked drive",
      drive({ positive: true, lockable: false }),
      "C",
      "none",
      on,
    ],
    ["a drive that is locked and not uncoupled", drive({}), "C", "drive isolated only", on],
    ["a drive that takes no lock holds nothing that counts", drive({ lockable: false }), "C", "none", on],
  ];
  test.each(cases.map(([reason, plant, isolated, grade, asking]) => [reason, grade, plant, isolated, asking] as const))(
    "%s: %s",
    (_, grade, plant, isolated, asking) => expect(gradeOf(plant, isolated, asking)).toBe(grade),
  );
});
