import { storedQuantity, type StoredQuantity } from "../energy/storedEnergy";
import type { Contents } from "../plant/plant";
import { STANDARD_ATMOSPHERE_Pa } from "../units/units";
import type { StateGraph } from "../trace/stateGraph";
import type { Cavity } from "../judge/sections";

/** What is shut in behind the barriers: where, and how much the register knows of it. */
export type DarkZone = Readonly<{
  places: readonly string[];
  trapped: readonly Trapped[];
}>;

export type Trapped = Readonly<{
  place: string;
  fluid: string;
  /** Null when the register does not say: ask, and take it as full. */
  volume_m3: number | null;
  /** Gauge. Null when the register does not say: take it as the source's. */
  pressure_Pa: number | null;
  /** What a gas gives out when it is let go, between its bounds; null for what is not known or is no gas. */
  energy: StoredQuantity | null;
  /** Bleeds of its cavity that are opened. */
  bleeds: readonly string[];
}>;

/** Cost: linear in the cavities. */
export function darkZoneOf(graph: StateGraph, cavities: readonly Cavity[]): DarkZone {
  const places = new Set(cavities.flatMap((cavity) => cavity.places));
  const trapped = new Map<string, Trapped>();
  for (const cavity of cavities) {
    for (const place of cavity.places) {
      const found = graph.places.resolveFace(place);
      const index = found.ok ? graph.places.itemOf[found.places[0]!] : undefined;
      const contents = index === undefined ? undefined : graph.plant.items[index]?.contents;
      if (!contents || trapped.has(place)) continue;
      trapped.set(place, {
        place,
        fluid: contents.fluid,
        volume_m3: contents.volume_m3 ?? null,
        pressure_Pa: contents.pressure_Pa ?? null,
        energy: contents.phase === "gas" ? gasHeld(contents) : null,
        bleeds: cavity.bleeds,
      });
    }
  }
  return {
    places: [...places].sort(),
    trapped: [...trapped.values()].sort((a, b) => (a.place < b.place ? -1 : 1)),
  };
}

function gasHeld({ volume_m3, pressure_Pa }: Contents): StoredQuantity {
  return storedQuantity({
    form: "trapped pressure",
    volume_m3,
    pressure_Pa: pressure_Pa === undefined ? undefined : pressure_Pa + STANDARD_ATMOSPHERE_Pa,
  });
}
