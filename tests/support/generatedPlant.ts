import type { PlantInput } from "@/core/plant/plantSchema";
import type { JobInput } from "@/core/request/jobFile";
import { seededRandom } from "./seededRandom";

/**
 * A plant of the demo's kind in any size: process units with a tank, a pump and its sister on shared headers, cubicles on
 * a motor control centre with an interlock between neighbours, a steam jacket, bleeds. Ten units share a pipe rack and
 * pass material on through two valves; racks share steam; motor control centres hang on boards, boards on two intakes
 * with a bus tie. The same seed and size make the same plant on every machine.
 */
export function generatedPlant(size: number, seed: number): { plant: PlantInput; job: JobInput } {
  const random = seededRandom(seed);
  const items: PlantInput["items"] = [];
  const links: PlantInput["links"] = [];
  type Item = PlantInput["items"][number];
  type Carries = PlantInput["links"][number]["carries"];
  const item = (tag: string, kind: string, rest: Partial<Item> = {}) => {
    items.push({ tag, kind, ...rest });
    return tag;
  };
  const line = (carries: Carries, ...places: string[]) =>
    places.slice(1).forEach((to, i) => links.push({ from: places[i]!, to, carries, walked: "2026-09-14" }));
  const device = (tag: string, stops: Carries, kind = "valve", credit = true) =>
    item(tag, kind, {
      device: { stops: [stops], credit, lockable: credit, effort: 2 + random.below(24) / 2, stands: "passing" },
    });
  const bleed = (tag: string, at: string) => {
    item(tag, "bleed", { bleed: { safe: true, gauge: random.chance(0.5) } });
    line("fluid", at, tag);
  };
  const contents = () => ({
    fluid: random.pick(["oil", "water", "caustic", "solvent"]),
    temperature_C: 20 + random.below(80),
    pressure_Pa: 1e5 + random.below(8) * 1e5,
    hazards: random.chance(0.3) ? ["flammable" as const] : [],
  });

  for (const n of [1, 2]) item(`INC-${n}`, "incomer", { source: [{ carrier: "power" }], voltage_V: 11000 });
  line("power", "INC-1", device("TIE", "power", "breaker"), "INC-2");
  item("BOILER", "vessel", { source: [{ carrier: "fluid" }], contents: { ...contents(), fluid: "steam" } });

  let lastHeader = "";
  let lastStarter = "";
  for (let unit = 0; items.length + UNIT <= size; unit++) {
    const u = (name: string) => `${name}-${unit}`;
    const rack = Math.floor(unit / 10);
    if (unit % 10 === 0) {
      const incomer = `INC-${1 + (rack % 2)}`;
      line(
        "power",
        incomer,
        device(`CB-${rack}`, "power", "breaker"),
        item(`BUS-${rack}`, "busbar", { voltage_V: 400 }),
      );
      line("fluid", "BOILER", device(`VS-${rack}`, "fluid"), item(`STEAM-${rack}`, "header"));
      line("fluid", `STEAM-${rack}`, device(`VC-${rack}`, "fluid"), item(`COND-${rack}`, "header"));
      lastHeader = "";
      lastStarter = "";
    }
    const mcc = item(u("MCC"), "busbar", { voltage_V: 400 });
    line("power", `BUS-${rack}`, device(u("QM"), "power", "isolator"), mcc);
    const tank = item(u("T"), "tank", { source: [{ carrier: "fluid" }], contents: contents() });
    const suction = item(u("HS"), "header");
    const discharge = item(u("HD"), "header");
    line("fluid", tank, device(u("VT"), "fluid"), suction);
    bleed(u("BS"), suction);
    bleed(u("BD"), discharge);
    for (const s of ["A", "B"]) {
      const p = (name: string) => `${name}-${unit}${s}`;
      const pump = item(p("P"), "pump", { contents: contents() });
      line("fluid", suction, device(p("V1"), "fluid"), pump, device(p("NR"), "fluid", "check valve", false));
      line("fluid", p("NR"), item(p("SP"), "pipe"), device(p("V2"), "fluid"), discharge);
      bleed(p("BP"), pump);
      bleed(p("BN"), p("SP"));
      const motor = item(p("M"), "motor", { voltage_V: 400, needs: ["power"] });
      const starter = item(p("K"), "starter", { voltage_V: 400 });
      line("power", mcc, device(p("Q"), "power", "isolator"), starter, motor);
      line("shaft", motor, pump);
      line("control", starter, motor);
      if (lastStarter !== "") line("control", lastStarter, device(p("X"), "control", "switch"), starter);
      lastStarter = starter;
      const jacket = item(p("J"), "jacket");
      line("fluid", `STEAM-${rack}`, device(p("VJ"), "fluid"), jacket, device(p("VK"), "fluid"), `COND-${rack}`);
      line("heat", jacket, pump);
    }
    const vessel = item(u("R"), "vessel", { contents: contents() });
    line("fluid", discharge, device(u("VR"), "fluid"), vessel, device(u("VO"), "fluid"), item(u("HO"), "header"));
    if (lastHeader !== "") line("fluid", lastHeader, device(u("VI"), "fluid"), vessel);
    lastHeader = u("HO");
  }
  const unit = Math.floor((items.length / UNIT) * 0.45);
  return {
    plant: { format: "heavy-lantern/plant", version: 1, items, links },
    job: {
      format: "heavy-lantern/job",
      version: 1,
      faces: [
        { place: `P-${unit}A`, how: ["open", "touch"] },
        { place: `K-${unit}A`, how: ["touch"] },
      ],
    },
  };
}

/** Items in one unit, about. */
const UNIT = 50;
