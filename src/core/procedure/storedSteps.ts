import type { StoredEnergy } from "../energy/storedEnergy";
import type { Plan } from "../plan/plan";
import type { StateGraph } from "../trace/stateGraph";
import type { TracedStored } from "../trace/trace";
import { itemTagOf } from "./steps";

type StoredRow = Readonly<{ row: TracedStored; form: StoredEnergy["form"] | undefined }>;

/** Stored energies that no point of the plan stands before, once each. */
export function storedToRelease(plan: Plan, graph: StateGraph): StoredRow[] {
  const open = plan.stored.filter((row) =>
    row.via.slice(1, -1).every((place) => !plan.points.some((point) => point.device === place)),
  );
  return [...new Map(open.map((row) => [row.source, row])).values()].map((row) => ({
    row,
    form: graph.plant.items[graph.itemByTag.get(itemTagOf(graph, row.source)) ?? -1]?.sources.find(
      (source) => !source.feeding && source.carrier === row.carrier,
    )?.stored?.form,
  }));
}

/** When in the order a stored energy is made harmless. What nobody described is released with the pressure. */
export type ReleaseKind = "restrain" | "run down" | "discharge" | "cool" | "release";

export function releaseKind(form: StoredEnergy["form"] | undefined): ReleaseKind {
  switch (form) {
    case "raised mass":
    case "spring":
      return "restrain";
    case "flywheel":
      return "run down";
    case "capacitor":
      return "discharge";
    case "hot body":
      return "cool";
    case "accumulator":
    case "trapped pressure":
    case "other":
    case undefined:
      return "release";
  }
}

export function releaseWords(kind: ReleaseKind, named: string, harmless: string): string {
  switch (kind) {
    case "restrain":
      return `Restrain ${named}: ${harmless}.`;
    case "run down":
      return `Wait for ${named} to run down, see that it stands, then pin it.`;
    case "cool":
      return `Let ${named} cool: ${harmless}.`;
    case "discharge":
      return `Discharge and short ${named} once it is proved dead and its waiting time is over. Leave the short on.`;
    case "release":
      return `Make the stored energy at ${named} harmless: ${harmless}.`;
  }
}
