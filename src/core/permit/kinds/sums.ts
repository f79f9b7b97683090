import { blowerFlow_m3_s } from "../../atmosphere/blowerFlow";
import type { PermitDetails } from "./details";

/** A sum that a permit's work asks, with what the permit says of its inputs, SI; the rest is asked on the bench. */
export type AskedSum = Readonly<{
  calculator: string;
  inputs: Readonly<Record<string, number | string>>;
  /** What it is needed for. */
  why: string;
}>;

const sum = (calculator: string, why: string, inputs: AskedSum["inputs"] = {}): AskedSum => ({
  calculator,
  inputs,
  why,
});

/**
 * The sums that somebody who writes or issues this permit still does by hand: what the permit itself computes, as its purge or
 * its zone, is not among them. Common practice, no source.
 */
export function sumsOf(details: PermitDetails, profile: string): readonly AskedSum[] {
  switch (details.kind) {
    case "confined space entry": {
      const { volume_m3, most, blower_m3_s, bends } = details;
      const flow_m3_s = blowerFlow_m3_s({ rated_m3_s: blower_m3_s, bends });
      return [
        sum("people-in-space", "should the blower stand: how long the air keeps those inside", {
          volume_m3,
          people: most,
        }),
        sum("exhaust-distance", "how far what is blown out reaches", { flow_m3_s }),
        sum("breathing-air", "where anybody wears apparatus, to rescue too"),
        sum("heat-stress", "how long in an hour people may work in it"),
      ];
    }
    case "hot work": {
      const { works, height_m, inEquipment } = details;
      return [
        ...(height_m > 0 ? [sum("spark-throw", "how far sparks fly from this height", { height_m })] : []),
        ...(works.includes("welding") ? [sum("welding-fume", "how much air carries the fume off")] : []),
        ...(inEquipment ? [sum("wall-heat", "how hot the other side of the wall gets")] : []),
        ...(details.noCylinders ? [] : [sum("leaking-cylinder", "where a cylinder goes that leaks")]),
      ];
    }
    case "line break":
      return [
        sum("residual-force", "what a pressure left behind pushes on the first flange"),
        sum("static-head", "what a column above it presses with"),
        sum("bleed-flow", "where something comes at the bleed: what the valve lets by"),
      ];
    case "electrical work": {
      const { voltage_V, sanction, live } = details;
      return [
        sum("approach-distance", "how near people may come to what stays live", { voltage_V, profile }),
        ...(live ? [sum("arc-energy", "what an arc may burn, to choose clothing by", { voltage_V })] : []),
        sum("portable-earth", "how thick the earths must be"),
        ...(sanction ? [sum("back-feed", "what the test puts on the other side", { applied_V: voltage_V })] : []),
      ];
    }
    case "work at height":
      return [sum("drop-zone", "how far people are kept from under it", { height_m: details.height_m })];
    case "pressure test": {
      const { medium, volume_m3 } = details;
      return [
        sum("test-pressure", "test pressure, the gauge's range, weight on the supports", { medium, volume_m3 }),
        sum("pressure-hold", "whether it leaked or only cooled", { volume_m3 }),
      ];
    }
    case "general":
    case "safeguard bypass":
    case "minor isolation":
      return [];
  }
}
