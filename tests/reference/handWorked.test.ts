import { guardRelease } from "@/core/guard/guardRelease";
import { HARMFUL, HARMLESS, SmallPlant, tagsOf } from "../support/smallPlant";

/** Cases small enough to be argued with a pencil. The trade's facts in them are common practice, with no source. */

const open = (place: string) => [{ place, how: ["open" as const] }];
const touch = (place: string) => [{ place, how: ["touch" as const] }];

describe("block, bleed, block", () => {
  const line = () =>
    new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP", "pipe")
      .device("V-2", "fluid")
      .item("P", "vessel")
      .line("fluid", "S", "V-1", "SP", "V-2", "P");

  test("with the bleed between and one at the work it is proved double", () => {
    // Two barriers in series; the spool between them runs out of BL, the vessel out of BW. Nothing more can be asked.
    const made = line().bleed("BL", "SP").bleed("BW", "P").plan(open("P"));
    expect(tagsOf(made)).toEqual(["V-1", "V-2"]);
    expect(made.routes[0]).toMatchObject({
      depth: 2,
      requiredGrade: "proved double",
      grade: "proved double",
      held: true,
    });
    expect(made.bleeds).toEqual(["BL", "BW"]);
  });

  test("a bleed in the wrong cavity leaves it unproved", () => {
    // BW drains the vessel, which proves V-2 alone; between the valves a leaking V-1 could build up pressure unseen.
    const made = line().bleed("BW", "P").plan(open("P"));
    expect(made.routes[0]).toMatchObject({ depth: 2, grade: "proved single", held: false });
    expect(made.routes[0]!.because).toEqual(["no bleed surely drains SP"]);
    expect(made.feasible).toBe(true);
    expect(made.held).toBe(false);
  });

  test("a bleed beyond a check valve drains nothing behind it", () => {
    // S – V-1 – NR – V-2 – P with the bleed between NR and V-2: what V-1 lets by is held behind NR if NR sticks.
    const made = new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP-1", "pipe")
      .device("NR", "fluid", { kind: "check valve", credit: false })
      .item("SP-2", "pipe")
      .device("V-2", "fluid")
      .item("P", "vessel")
      .line("fluid", "S", "V-1", "SP-1", "NR", "SP-2", "V-2", "P")
      .bleed("BL", "SP-2")
      .bleed("BW", "P")
      .plan(open("P"));
    expect(made.routes[0]!.because).toEqual(["no bleed surely drains NR, SP-1"]);
  });
});

test("a bypass around a double block counts as what it is: one valve", () => {
  // The bypass joins S to the work by V-3 alone. However many valves stand in the main line, the depth is 1.
  const made = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .device("V-2", "fluid")
    .device("V-3", "fluid", { effort: 1 })
    .item("P", "vessel")
    .line("fluid", "S", "V-1", "V-2", "P")
    .line("fluid", "S", "V-3", "P")
    .plan(open("P"), { require: { fluid: 2 } });
  expect(made.feasible).toBe(false);
  expect(made.shortfalls).toMatchObject([{ source: "S", required: 2, available: 1 }]);
  // One barrier is the best there is, and the dearer second valve of the main line would not help.
  expect(tagsOf(made)).toHaveLength(2);
  expect(tagsOf(made)).toContain("V-3");
});

test("a check valve tempts as a barrier and is none", () => {
  const plant = new SmallPlant()
    .source("H", "fluid", HARMLESS)
    .device("NR", "fluid", { kind: "check valve", credit: false, effort: 0 })
    .device("V", "fluid", { effort: 9 })
    .item("P", "vessel")
    .line("fluid", "P", "NR", "V", "H");
  expect(tagsOf(plant.plan(open("P"), { require: { fluid: 1 } }))).toEqual(["V"]);
  expect(plant.check(open("P"), ["NR"], { require: { fluid: 1 } })).toMatchObject({
    ok: false,
    lit: [{ face: "P", source: "H" }],
    ignored: [{ device: "NR" }],
  });
});

test("a control valve with one manual block gives one barrier", () => {
  const made = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("CV", "fluid", { kind: "control valve", credit: false })
    .device("HV", "fluid")
    .item("P", "vessel")
    .line("fluid", "S", "CV", "HV", "P")
    .bleed("BW", "P")
    .plan(open("P"));
  // The vessel is bled, so the one valve is proved; two barriers were asked, and only one may be counted.
  expect(made.shortfalls).toMatchObject([
    { required: 2, available: 1, requiredGrade: "proved double", grade: "proved single" },
  ]);
  expect(made.shortfalls[0]!.measures).toContain("gauge in view");
});

describe("a spade", () => {
  const vessel = () =>
    new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP-1", "pipe")
      .device("V-2", "fluid")
      .device("SPADE", "fluid", { kind: "blind", positive: true, effort: 40, bore_m: 0.1, flangeClass: "16" })
      .item("T", "vessel")
      .line("fluid", "S", "V-1", "SP-1", "V-2", "SPADE", "T")
      .bleed("BL", "SP-1");

  test("for entry is positive, and staged: valves to fit it first", () => {
    const made = vessel().plan([{ place: "T", how: ["enter"] }]);
    expect(made.points.map(({ device, stage, because }) => [device, stage, because])).toEqual([
      ["SPADE", 2, "positive"],
      ["V-1", 1, "to fit the blinds"],
      ["V-2", 1, "to fit the blinds"],
    ]);
    expect(made.routes[0]).toMatchObject({ requiredGrade: "positive", grade: "positive" });
    // d·√(3P/16S) = 0.1 m · √(3·3e5/(16·138e6)) = 2.02 mm, ASME B31.3 304.5.3 as quoted in the code.
    expect(made.blinds[0]!.thickness_m! * 1000).toBeCloseTo(2.02, 2);
  });

  test("with no valve to fit it is a shortfall at its own flange", () => {
    const made = new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("SPADE", "fluid", { kind: "blind", positive: true })
      .item("T", "vessel")
      .line("fluid", "S", "SPADE", "T")
      .plan([{ place: "T", how: ["enter"] }]);
    expect(tagsOf(made)).toEqual(["SPADE"]);
    expect(made.shortfalls).toMatchObject([{ face: "SPADE", source: "S", available: 0, grade: "none" }]);
    expect(made.held).toBe(false);
  });

  test("the US profile accepts two valves with the bleed locked open instead", () => {
    const made = vessel()
      .bleed("BW", "T")
      .plan([{ place: "T", how: ["enter"] }], { profile: "us-style" });
    expect(tagsOf(made)).toEqual(["V-1", "V-2"]);
    expect(made.routes[0]).toMatchObject({ requiredGrade: "proved double", held: true });
  });
});

describe("two jobs sharing one header valve", () => {
  const plant = new SmallPlant()
    .source("H", "fluid", HARMLESS)
    .device("HV", "fluid")
    .item("TEE", "tee")
    .item("A", "vessel")
    .item("B", "vessel")
    .line("fluid", "H", "HV", "TEE", "A")
    .line("fluid", "TEE", "B");
  const jobOf = (number: string, place: string) => ({
    number,
    job: plant.job(open(place)),
    holds: ["HV"],
    opened: [],
    accepted: {},
    people: number === "J-2" ? ["Nell"] : [],
    counts: true,
  });

  test("the first to finish may take its own lock off: the other still holds the valve", () => {
    const live = [jobOf("J-1", "A"), jobOf("J-2", "B")];
    expect(guardRelease(plant.graph, live, [{ job: "J-1", device: "HV" }])).toEqual([]);
  });

  test("with only one lock between them it would light the other's work, and says whose", () => {
    const live = [jobOf("J-1", "A"), { ...jobOf("J-2", "B"), holds: [] }];
    expect(guardRelease(plant.graph, live, [{ job: "J-1", device: "HV" }])).toContainEqual(
      expect.objectContaining({ job: "J-2", face: "B", source: "H", depth: 0, needs: 1, people: ["Nell"] }),
    );
  });
});

test("an interlock ring of three cubicles needs both of its terminals open, besides the feeder", () => {
  // K-1 feeds its own control; each neighbour sends interlock voltage round the ring, K-2 – K-3 – K-1.
  const plant = new SmallPlant().source("MCC", "power");
  for (const n of [1, 2, 3]) {
    plant.device(`Q-${n}`, "power", { kind: "isolator" }).item(`K-${n}`, "starter", { voltage_V: 400 });
    plant.line("power", "MCC", `Q-${n}`, `K-${n}`);
  }
  for (const [a, b] of [
    [1, 2],
    [2, 3],
    [3, 1],
  ]) {
    plant
      .device(`X-${a}${b}`, "control", { kind: "knife terminal", effort: 2 })
      .line("control", `K-${a}`, `X-${a}${b}`, `K-${b}`);
  }
  const made = plant.plan(touch("K-1"));
  // Opening X-12 and X-31 costs 4; locking the neighbours' feeders would cost 10 and stop them.
  expect(tagsOf(made)).toEqual(["Q-1", "X-12", "X-31"]);
  expect(made.exact).toBe(true);
  expect(made.waysIn.filter((way) => way.carrier === "control").every((way) => way.sources[0]!.hidden)).toBe(true);
});

test("a generator on the shaft feeds back, and its motor's isolator does not stop it", () => {
  // Turbine – coupling – motor – isolator – busbar. Work on the motor's terminals: the net by Q, the turbine by the shaft.
  const plant = new SmallPlant()
    .source("NET", "power")
    .device("Q", "power", { kind: "isolator" })
    .item("M", "motor", { voltage_V: 400 })
    .source("TURB", "shaft")
    .device("CPL", "shaft", { kind: "coupling", effort: 30, positive: true })
    .line("power", "NET", "Q", "M")
    .line("shaft", "TURB", "CPL", "M");
  expect(tagsOf(plant.plan(touch("M")))).toEqual(["CPL", "Q"]);
  expect(plant.check(touch("M"), ["Q"]).lit).toContainEqual(
    expect.objectContaining({ source: "TURB", face: "M", arrives: "power" }),
  );
});

test("a transformer fed backwards puts test voltage on the high side", () => {
  // A relay tester on the low side of a voltage transformer: work on the high side with its breaker racked out.
  const plant = new SmallPlant()
    .source("NET", "power")
    .device("CB", "power", { kind: "breaker", positive: true })
    .item("HV", "busbar", { voltage_V: 11000 })
    .item("VT", "voltage transformer", { voltage_V: 11000 })
    .device("FU", "control", { kind: "fuse" })
    .source("TEST", "control")
    .line("power", "NET", "CB", "HV", "VT")
    .line("control", "TEST", "FU", "VT");
  const lit = plant.check(touch("HV"), ["CB"]).lit;
  expect(lit).toEqual([expect.objectContaining({ source: "TEST", arrives: "power", via: ["TEST", "FU", "VT", "HV"] })]);
  const made = plant.plan(touch("HV"));
  expect(tagsOf(made)).toEqual(["CB", "FU"]);
  // The breaker separates; the fuse is a locked device only, which is less than high voltage asks.
  expect(made.shortfalls).toMatchObject([
    { source: "TEST", requiredGrade: "separated", grade: "locked isolating device" },
  ]);
});

test("a device that is itself the work is no barrier to it, nor for anything beyond", () => {
  const plant = new SmallPlant()
    .source("S", "fluid", HARMLESS)
    .device("V-1", "fluid", { effort: 9 })
    .device("V-2", "fluid", { effort: 1 })
    .item("P", "vessel")
    .line("fluid", "S", "V-1", "V-2", "P");
  const made = plant.plan([...open("V-2"), ...open("P")], { require: { fluid: 1 } });
  expect(tagsOf(made)).toEqual(["V-1"]);
});

test("a sister pump that runs keeps the space between two valves live, so its drive is locked too", () => {
  // T – V-1 – HD – V-2 – P-A, and P-B hangs on HD. V-1 and V-2 are two barriers; while P-B can run, HD cannot be bled.
  const made = new SmallPlant()
    .source("T", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .item("HD", "header")
    .device("V-2", "fluid")
    .item("P-A", "vessel")
    .item("P-B", "pump")
    .item("M-B", "motor", { voltage_V: 400 })
    .device("Q-B", "power", { kind: "isolator" })
    .source("NET", "power")
    .line("fluid", "T", "V-1", "HD", "V-2", "P-A")
    .line("fluid", "HD", "P-B")
    .line("power", "NET", "Q-B", "M-B")
    .line("shaft", "M-B", "P-B")
    .bleed("BL", "HD")
    .bleed("BB", "P-B")
    .bleed("BW", "P-A")
    .plan(open("P-A"));
  expect(made.points.map(({ device, because }) => [device, because])).toEqual([
    ["Q-B", "to prove the space between"],
    ["V-1", "computed"],
    ["V-2", "computed"],
  ]);
  expect(made.held).toBe(true);
});

test("points that cost nothing and hold nothing are not in the plan", () => {
  // Found by a random plant: D0 holds S2 and both faces by itself, D2 costs nothing and adds nothing.
  const made = new SmallPlant()
    .source("N0", "fluid")
    .device("D0", "fluid", { effort: 0, stops: ["fluid", "power"] })
    .device("D2", "fluid", { effort: 0, stops: ["fluid", "power"] })
    .item("N2", "vessel")
    .item("DEAD", "vessel")
    .line("fluid", "N2", "D0", "N0")
    .line("fluid", "D0", "D2", "DEAD")
    .plan(open("N2"), { require: { fluid: 1 } });
  expect(tagsOf(made)).toEqual(["D0"]);
});

test("a face that the register joins to nothing is a finding, and never held", () => {
  const plant = new SmallPlant()
    .source("S", "fluid", HARMLESS)
    .item("P", "vessel")
    .item("Q", "vessel")
    .line("fluid", "S", "Q");
  const made = plant.plan(open("P"));
  expect(made).toMatchObject({ held: false, unlinked: ["P"], routes: [] });
  expect(made.findings).toContainEqual(expect.objectContaining({ code: "no link", tags: ["P"] }));
  expect(plant.check(open("P"), [])).toMatchObject({ ok: false, unlinked: ["P"] });
});

test("what stands in a work zone that nothing drains is a finding, whatever the grade", () => {
  const row = () =>
    new SmallPlant()
      .source("S", "fluid", HARMLESS)
      .device("V-1", "fluid")
      .item("P", "vessel", { contents: HARMLESS })
      .line("fluid", "S", "V-1", "P");
  expect(
    row()
      .plan(open("P"))
      .findings.map(({ code }) => code),
  ).toContain("not drained");
  expect(
    row()
      .bleed("BP", "P")
      .plan(open("P"))
      .findings.map(({ code }) => code),
  ).not.toContain("not drained");
  const found = (tags: string[]) =>
    row()
      .bleed("BP", "P")
      .plan(open("P"), { struck: tags })
      .findings.map(({ code }) => code);
  expect(found(["BP"])).toContain("not drained");
});

describe("a blind in a flange that bears less than may come", () => {
  const plant = (...classes: string[]) => {
    const blinds = classes.map((_, i) => `BD-${i + 1}`);
    const made = new SmallPlant()
      .source("S", "fluid", { ...HARMFUL, pressure_Pa: 200e5 })
      .device("V-1", "fluid")
      .item("SP", "pipe")
      .device("V-2", "fluid");
    classes.forEach((flangeClass, i) =>
      made.device(blinds[i]!, "fluid", { kind: "blind", positive: true, flangeClass, bore_m: 0.1 }),
    );
    return made
      .item("P", "vessel", { contents: HARMLESS })
      .line("fluid", "S", "V-1", "SP", "V-2", ...blinds, "P")
      .bleed("BL", "SP")
      .bleed("BP", "P")
      .plan([{ place: "P", how: ["enter"] }]);
  };
  const positive = ({ points }: ReturnType<typeof plant>) =>
    points.filter((one) => one.positive).map((one) => one.device);

  test("is named, and counts for nothing: 200 bar at PN 16, and at class 150, which is no 150 bar", () => {
    for (const flangeClass of ["16", "PN 16", "150", "class 900"]) {
      const found = plant(flangeClass);
      expect(found.notices.join(" ")).toContain(
        `BD-1 counts for nothing: it stands in a flange of class ${flangeClass}`,
      );
      expect(found.notices.join(" ")).toContain("S may bring 200 bar");
      expect(positive(found)).toEqual([]);
      expect(found.shortfalls).toHaveLength(1);
      expect(found.shortfalls[0]).toMatchObject({ requiredGrade: "positive", grade: "proved double" });
    }
  });
  test("one that bears it is positive, whatever stands beside it", () => {
    for (const classes of [["PN 250"], ["class 1500"], ["PN 16", "PN 250"], ["PN 250", "150"]]) {
      const found = plant(...classes);
      expect(positive(found)).toEqual([`BD-${classes.findIndex((one) => /250|1500/.test(one)) + 1}`]);
      expect(found.shortfalls).toEqual([]);
    }
  });
  test("of which nobody knows what it bears, it is asked", () => {
    const found = plant("special");
    expect(found.blinds[0]!.missing).toContain("what class special of BD-1 bears");
  });
});
