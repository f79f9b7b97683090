import { HARMLESS, SmallPlant } from "../../support/smallPlant";
import { askedOf, type Asking } from "./asking";

/** Plants argued on paper, as in handArgued: which grade is asked, with the reason beside each. */
describe("what is asked comes from everything on the way", () => {
  const acid = { ...HARMLESS, fluid: "acid", hazards: ["corrosive" as const] };
  const petrol = { ...HARMLESS, fluid: "petrol", hazards: ["flammable" as const] };
  const nitrogen = (face: object = { contents: HARMLESS }) =>
    new SmallPlant().source("S", "fluid", HARMLESS).device("V-1", "fluid").item("P", "vessel", face);
  const busbars = (between: (plant: SmallPlant) => SmallPlant, ...line: string[]) =>
    between(
      new SmallPlant()
        .source("S", "power")
        .item("HV", "busbar", { voltage_V: 6600 })
        .device("Q", "power", { kind: "isolator" })
        .item("P", "busbar", { voltage_V: 400 }),
    ).line("power", "S", "HV", ...line, "Q", "P");
  /** 400 V terminals, a transformer up to 6.6 kV, and the supply of the town above. */
  const steppedUp = (normal: "forward" | "none" = "forward") =>
    new SmallPlant()
      .source("S", "power")
      .item("HV", "busbar", { voltage_V: 6600 })
      .item("T", "transformer")
      .device("Q", "power", { kind: "isolator" })
      .item("P", "generator", { voltage_V: 400 })
      .line("power", "P", "Q")
      .link("Q", "T", "power", { normal })
      .link("T", "HV", "power", { normal })
      .line("power", "S", "HV");
  const cases: [string, SmallPlant, string, Asking?][] = [
    ["harmless all along", nitrogen().line("fluid", "S", "V-1", "P"), "proved single"],
    [
      "nitrogen through a drum of acid brings acid",
      nitrogen().item("D", "vessel", { contents: acid }).line("fluid", "S", "D", "V-1", "P"),
      "proved double",
    ],
    [
      "the drum hanging on a tee lies on no way that passes no place twice",
      nitrogen()
        .item("T", "tee")
        .item("D", "vessel", { contents: acid })
        .line("fluid", "S", "T", "V-1", "P")
        .line("fluid", "T", "D"),
      "proved single",
    ],
    [
      "the drum in a loop does",
      nitrogen()
        .item("T", "tee")
        .item("U", "tee")
        .item("D", "vessel", { contents: acid })
        .line("fluid", "S", "T", "U", "V-1", "P")
        .line("fluid", "T", "D", "U"),
      "proved double",
    ],
    [
      "hot work on what held petrol, fed by water",
      nitrogen({ contents: petrol }).line("fluid", "S", "V-1", "P"),
      "positive",
      { how: ["hot"] },
    ],
    [
      "a face of which nobody wrote down what it held is harmful",
      nitrogen({}).line("fluid", "S", "V-1", "P"),
      "proved double",
    ],
    [
      "a place between without contents adds nothing",
      nitrogen().item("D", "vessel").line("fluid", "S", "D", "V-1", "P"),
      "proved single",
    ],
    [
      "another source at 60 bar makes what the face holds as strong",
      nitrogen({ contents: petrol })
        .source("S-2", "fluid", { ...HARMLESS, pressure_Pa: 60e5 })
        .line("fluid", "S", "V-1", "P")
        .line("fluid", "S-2", "P"),
      "positive",
    ],
    ["a 6.6 kV busbar before a 400 V face", busbars((p) => p), "separated", { arrives: "power", how: ["touch"] }],
    [
      "with a transformer between, the side of the face counts",
      busbars((p) => p.item("T", "transformer"), "T"),
      "locked isolating device",
      { arrives: "power", how: ["touch"] },
    ],
    [
      "a generator's terminals below its step-up transformer: what comes back through it is what stands above",
      steppedUp(),
      "separated",
      { arrives: "power", how: ["touch"] },
    ],
    [
      "nobody wrote down which way the transformer is fed",
      steppedUp("none"),
      "separated",
      { arrives: "power", how: ["touch"] },
    ],
  ];
  test.each(cases.map(([reason, plant, grade, asking]) => [reason, grade, plant, asking] as const))(
    "%s: %s",
    (_, grade, plant, asking) => expect(askedOf(plant, asking)).toBe(grade),
  );
});
