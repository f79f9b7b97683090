import { spaceWidth_m } from "../../core/schedule/airWaits";
import { decisionsOf } from "../../core/hazard/jobHazards";
import type { PermitRequired } from "../../core/hazard/permitsRequired";
import { jobHazards } from "../hazard/hazardStore";
import { areaAt, placeOf } from "../../core/permit/around/hotWorkZone";
import type { PermitKind } from "../../core/permit/kinds/kinds";
import { afterWatchRule, watchCovers } from "../../core/permit/requirements/hotWork";
import { substance } from "../../core/atmosphere/substances";
import { profileOf } from "../../core/requirement/profiles";
import { database } from "../db/database";
import { setupOf } from "../figures/dayView";
import { type JobView } from "../job/jobView";
import { plantOf } from "../job/plans";
import { itemAt } from "../plant/plantStore";

export type DraftDefaults = Readonly<{
  hazards: string;
  precautions: string;
  /** Figures in SI. */
  details: Readonly<Record<string, string | readonly string[]>>;
  required: readonly PermitRequired[];
}>;

/** What a new permit of this kind can be told without asking: from the hazards decided, the register, the job's set-up. */
export function draftDefaults(view: JobView, kind: PermitKind): DraftDefaults {
  const hazards = jobHazards(database(), view.number);
  const decided = [...decisionsOf(hazards?.hazards ?? { decisions: [], questions: [], conditions: null }).values()];
  const kept = decided.filter(({ verdict }) => verdict !== "rejected");
  return {
    hazards: kept.map(({ hazard }) => hazard).join("; "),
    precautions: kept.flatMap(({ controls }) => controls).join("; "),
    details: detailDefaults(view, kind),
    required: hazards?.required ?? [],
  };
}

function detailDefaults(view: JobView, kind: PermitKind): Record<string, string | readonly string[]> {
  const current = plantOf(view);
  const { plant } = current;
  const how = { "hot work": "hot", "confined space entry": "enter", "line break": "open" }[kind as string];
  const face = view.job.faces.find((one) => one.how.some((way) => way === how)) ?? view.job.faces[0]!;
  const item = itemAt(current, face.place) ?? undefined;
  const spot = item ? placeOf(item, plant.areas) : null;
  const said: Record<string, string> = {};
  const say = (name: string, value: number | string | undefined) => {
    if (value !== undefined && value !== "") said[name] = String(value);
  };
  if (spot) {
    say("x_m", spot.x_m);
    say("y_m", spot.y_m);
    say("level_m", spot.level_m);
  }
  const setup = setupOf(view);
  if (kind === "hot work") {
    const profile = afterWatchRule(profileOf(view.job.profile).afterWatch);
    const area = spot ? areaAt(plant.areas, spot) : undefined;
    const own = afterWatchRule(area?.watchClass ?? "class 3");
    say("afterWatch", watchCovers(own, profile) ? own.id : profile.id);
  }
  if (kind === "confined space entry") {
    say("space", face.place);
    say("depth_m", item?.space?.depth_m);
    say("travel_m", item?.space?.travel_m);
    say("width_m", spaceWidth_m(item));
    say("corners", item?.space?.corners);
    say("ducts", item?.space?.ducts);
    say("chimneys", item?.space?.chimneys);
    say("volume_m3", item?.contents?.volume_m3);
    say("blower_m3_s", setup.blower_m3_s);
    say("bends", setup.bends);
  }
  if (kind === "line break") say("line", item ? `${item.tag} ${item.name ?? ""}`.trim() : face.place);
  if (kind === "electrical work") {
    // The highest of all work locations; where nobody wrote one down it is asked.
    const known = view.job.faces.flatMap(({ place }) => itemAt(current, place)?.voltage_V ?? []);
    say("voltage_V", known.length === 0 ? undefined : Math.max(...known));
  }
  if (kind === "work at height" && spot) {
    const floor = plant.areas.find(({ name }) => name === item?.area)?.level_m ?? 0;
    say("height_m", Math.max(0, spot.level_m - floor) || undefined);
  }
  const fluid = item?.contents?.fluid ?? "";
  const gas = substance(fluid);
  return { ...said, ...(gas?.toxic ? { gases: [gas.name] } : {}) };
}
