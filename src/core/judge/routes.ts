import { later } from "../onceFor";
import { sortedBy } from "../sortedBy";
import type { Carrier } from "../plant/carriers";
import type { Family, Grade } from "../requirement/grades";
import type { RuleProfile } from "../requirement/profile";
import { leastWay, viaNames } from "../trace/barrierDistance";
import { placeName } from "../trace/stateGraph";
import { barrierDepths } from "../barrier/barrierDepth";
import type { Grader } from "./grade";
import type { BarrierField } from "../barrier/pairs";
import type { RequiredPair } from "./requirePairs";

/** How one source stands to one face with the chosen devices isolated. */
export type Route = Readonly<{
  source: string;
  carrier: Carrier;
  face: string;
  required: number;
  available: number;
  depth: number;
  /** Of what it asks, the first that is not held; else what asks most. */
  arrives: Carrier;
  family: Family;
  /** Null when the job asks plain numbers of barriers. */
  requiredGrade: Grade | null;
  grade: Grade;
  /** The grade is at least what is asked, for every form in which it arrives. */
  held: boolean;
  /** Why the grade is no better. */
  because: readonly string[];
  /** Which rule asks it, why, and where the rule comes from. */
  rule: Readonly<{ row: string; reason: string; source: string }>;
  /** What the route would bring: the contents at its source; null when the register does not say. */
  brings: string | null;
  /** The way with the fewest isolated devices, then links, in place names. */
  via: readonly string[];
}>;

/** A way that the plant's devices cannot hold as asked: the best that exists, and what may be done instead. */
export type Shortfall = Readonly<{
  source: string;
  carrier: Carrier;
  face: string;
  required: number;
  available: number;
  requiredGrade: Grade | null;
  grade: Grade;
  because: readonly string[];
  /** Whether no choice of points on this plant could hold it, or none was found in the time there is. */
  proved: "impossible" | "not found";
  /** It is no path from a source: what stands in the vessel itself cannot leave. Missing for every path. */
  noWayOut?: true;
  /** Measures of the profile that may stand in, by id. A person accepts them; the engine does not choose. */
  measures: readonly string[];
}>;

/** One row for each pair, sorted by face, source, carrier. Cost: barrierDepths for each face; the
 * way and the reasons of a row when they are read. */
export function routesOf(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  isolated: ReadonlySet<number>,
  grader: Grader,
): Route[] {
  const { graph } = field;
  const routes: Route[] = [];
  for (const face of field.faces) {
    const ofFace = pairs.filter((pair) => pair.face === face);
    const asked = Math.max(0, ...ofFace.map((pair) => pair.required));
    const sources = ofFace.map((pair) => pair.source);
    const depths = barrierDepths(field, face, sources, isolated, { enough: asked });
    const targets = field.targetsOf.get(face)!;
    for (const pair of ofFace) {
      const { source, demands } = pair;
      const found = depths.get(source);
      if (found === undefined) throw new Error(`${placeName(graph, source.vertex)} no longer reaches ${face.name}`);
      const judged = demands.map((demand) => ({ demand, judgement: grader.judge(pair, demand) }));
      const shown = judged.find(({ judgement }) => !judgement.held) ?? judged[0];
      if (shown === undefined) throw new Error(`${placeName(graph, source.vertex)} arrives as nothing`);
      const { demand, judgement } = shown;
      const via = later(() =>
        viaNames(graph, leastWay(graph, source.vertex, targets, found.gateMarks, found.distance)!),
      );
      const because = later(() => judgement.because);
      const contents = graph.plant.items[source.item]?.contents;
      routes.push({
        source: placeName(graph, source.vertex),
        carrier: source.carrier,
        face: face.name,
        required: demand.barriers,
        available: demand.available,
        get depth() {
          return demand.grade === null ? found.depth : judgement.depth;
        },
        arrives: demand.arrives,
        family: demand.family,
        requiredGrade: demand.grade,
        grade: judgement.grade,
        held: demand.grade === null ? found.depth >= demand.barriers : judged.every(({ judgement: { held } }) => held),
        get because() {
          return because();
        },
        rule: { row: demand.row, reason: demand.reason, source: demand.source },
        brings: contents ? [contents.fluid, ...contents.hazards].join(", ") : null,
        get via() {
          return via();
        },
      });
    }
  }
  return sortedBy(routes, rowKey);
}

function rowKey({ face, source, carrier }: Pick<Route, "face" | "source" | "carrier">): string {
  return [face, source, carrier].join("\u0000");
}

/** Every route that is not held. Under plain numbers of barriers: those with fewer available than asked. */
export function shortfallsOf(routes: readonly Route[], profile: RuleProfile): Shortfall[] {
  return routes
    .filter((route) => (route.requiredGrade === null ? route.available < route.required : !route.held))
    .map(({ source, carrier, face, required, available, requiredGrade, grade, because, family }) => ({
      source,
      carrier,
      face,
      required,
      available,
      requiredGrade,
      grade,
      because,
      proved: "not found" as const,
      measures: profile.measures.filter((measure) => measure.families.includes(family)).map((measure) => measure.id),
    }));
}
