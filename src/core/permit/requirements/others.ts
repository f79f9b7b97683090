import { approachLimit } from "../../energy/approachLimits";
import { keepOutOf } from "../around/crossChecks";
import type { DetailsOf, PermitDetails } from "../kinds/details";
import { detectorFaults } from "./hotWork";
import { known, looked, saidOf, type AskContext, type AskMaker } from "./ask";

function detailsOf<K extends PermitDetails["kind"]>({ permit }: AskContext, kind: K): DetailsOf<K> {
  if (permit.details.kind !== kind) throw new Error(`permit ${permit.number} is not for ${kind}`);
  return permit.details as DetailsOf<K>;
}

/** From this voltage on, dead is not enough: it is earthed. */
const HIGH_V = 1000;

export const OTHER_ASKS: Readonly<Record<string, AskMaker>> = {
  "first flange": (context) => {
    const { flange } = detailsOf(context, "line break");
    return looked(context, "first flange", `${flange} opened first and as if full: stand aside, far bolts first`);
  },
  "dead legs": (context) =>
    looked(context, "dead legs", "Blockages and dead legs suspected, drain and vent proved open"),
  spill: (context) => {
    const { release } = detailsOf(context, "line break");
    return looked(context, "spill", `What comes out is led away: ${release}`);
  },

  gloves: (context) => {
    const { gloves, voltage_V } = detailsOf(context, "electrical work");
    const unmet =
      gloves === "" ? "no gloves are named" : saidOf(context.facts.gearFault("insulating gloves", gloves, voltage_V));
    return known("gloves", "Insulating gloves in date and rated", unmet);
  },
  earths: (context) => {
    const { voltage_V, sanction } = detailsOf(context, "electrical work");
    if (voltage_V <= HIGH_V || sanction) return null;
    return known("earths", "Earthed at the work", context.facts.earths.length === 0 ? "no earth stands there" : null);
  },
  "test alone": (context) =>
    detailsOf(context, "electrical work").sanction
      ? looked(context, "test alone", "Earths come off for a test: nobody else works there, and all are told")
      : null,
  "screens to live": (context) => {
    const { voltage_V } = detailsOf(context, "electrical work");
    const limit = approachLimit(context.facts.profile.id, voltage_V);
    const near =
      limit === null
        ? "a person who knows this voltage says how near"
        : `nearer than ${limit.restricted_m} m only shielded, ${limit.limited_m} m for others`;
    return looked(context, "screens to live", `Screens stand towards what stays live; ${near}`, {
      ...(limit === null ? {} : { source: limit.source }),
    });
  },
  "instrument windings": (context) =>
    looked(
      context,
      "instrument windings",
      "Current transformers stay closed, voltage transformers open, capacitors shorted",
    ),
  "live reason": (context) => {
    const { live, liveReason } = detailsOf(context, "electrical work");
    if (!live) return null;
    return known(
      "live reason",
      "Why it cannot be dead is written down",
      liveReason === "" ? "nothing is written" : null,
    );
  },

  harness: (context) => {
    const { height_m, harnesses } = detailsOf(context, "work at height");
    const { facts } = context;
    if (height_m < facts.profile.fallAbove_m) return null;
    if (harnesses.length === 0) {
      return looked(context, "harness", "Rails or nets stand, for nobody wears a harness");
    }
    const faults = harnesses.flatMap((number) => saidOf(facts.gearFault("harness", number)) ?? []);
    return known("harness", "Every harness in date", faults.length > 0 ? faults.join(" ") : null);
  },
  "drop zone": (context) => looked(context, "drop zone", "The ground below is barred, tools are tied"),
  "height rescue": (context) => looked(context, "height rescue", "Who hangs in a harness is fetched within minutes"),

  "test energy": (context) => {
    const details = detailsOf(context, "pressure test");
    const { energy_J, split } = keepOutOf(details);
    const mega = Number((energy_J / 1e6).toPrecision(3));
    const unmet = split ? `${mega} MJ in one piece is too much: test in parts, or with water` : null;
    return known("test energy", "The gas holds no more energy than may stand in one piece", unmet, {
      source: "ASME PCC-2, article on pressure tests, from memory",
    });
  },
  "keep out": (context) => {
    const { distance_m } = keepOutOf(detailsOf(context, "pressure test"));
    return distance_m === 0
      ? looked(context, "keep out", "Nobody stands in line with flanges, plugs and hoses")
      : looked(context, "keep out", `Cleared and barred for ${Math.ceil(distance_m)} m around`);
  },
  relief: (context) =>
    looked(context, "relief", "A relief valve set for the test stands on it, with nothing shut before"),
  "whip checks": (context) => looked(context, "whip checks", "Every hose is tied at both ends"),
  "test gauge": (context) => {
    const { gauge } = detailsOf(context, "pressure test");
    return known("test gauge", `Gauge ${gauge} in date`, saidOf(context.facts.gearFault("pressure gauge", gauge)));
  },
  "live gauge": (context) =>
    context.facts.detectors.length === 0
      ? null
      : known("live gauge", "The pressure is read all the time and within its limits", detectorFaults(context), {
          before: "accept",
          cause: "pressure",
        }),

  "bypass owner": (context) => {
    const { owner, until_ms } = detailsOf(context, "safeguard bypass");
    const { facts, permit } = context;
    const unmet =
      facts.rolesOf(owner as never).length === 0
        ? "nobody of that name answers for it"
        : permit.validTo_ms > until_ms
          ? `it is asked for longer than ${facts.timeOf(until_ms)}`
          : null;
    return known("bypass owner", "Somebody answers for it until it is back", unmet);
  },
  compensation: (context) => {
    const { compensation } = detailsOf(context, "safeguard bypass");
    return looked(context, "compensation", `Stands in its place: ${compensation}`);
  },
};
