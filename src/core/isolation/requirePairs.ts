import type { Job } from "../job/jobFile";
import { requiredBarriers, type Requirement } from "../rules/requiredBarriers";
import { sourcesOf, type SourceVertex } from "../trace/sources";
import { barrierDistance, UNREACHED } from "../trace/barrierDistance";
import type { StateGraph } from "../trace/stateGraph";
import { faceVertices, type WorkFace } from "../trace/workFaces";
import type { Carrier } from "../plant/carriers";
import { barrierDepths } from "./barrierDepth";
import type { BarrierField, Pair } from "./pairs";

export type RequiredPair = Pair & Readonly<{ rule: Requirement }>;

/**
 * Every feeding source that may reach a face, with what the job asks between them: its own plain `require` by the
 * carrier supplied, else the strictest row of the table over the carriers as they arrive. Steam that arrives as heat
 * through a jacket is asked what heat is asked; hydrogen that arrives as hydrogen, what hydrogen is.
 *
 * Cost: a search for each face and arriving carrier, more where devices stop several carriers.
 */
export function requirePairs(field: BarrierField, job: Job): RequiredPair[] {
  const { graph } = field;
  const { feeding } = sourcesOf(graph);
  return field.faces.flatMap((face) => {
    const arrivals = arrivalsAt(graph, face, feeding);
    const reaching = feeding.filter((source) => arrivals.has(source));
    const asked = reaching.map((source) => {
      const rule: Requirement = job.require
        ? {
            barriers: job.require[source.carrier] ?? 0,
            grade: "barriers only",
            reason: "the job's own requirement",
            source: "the job",
          }
        : strictest(
            arrivals.get(source)!.map((carrier) =>
              requiredBarriers({
                how: new Set(face.how),
                supplied: source.carrier,
                carrier,
                contents: [graph.plant.items[source.item]?.contents],
              }),
            ),
          );
      return { source, rule };
    });
    const deepest = Math.max(0, ...asked.map(({ rule }) => rule.barriers));
    const available = barrierDepths(field, face, reaching, field.creditable, deepest);
    return asked.map(({ source, rule }) => {
      const found = available.get(source)?.depth ?? 0;
      return {
        source,
        face,
        rule,
        required: rule.barriers,
        available: found,
        k: Math.min(rule.barriers, found),
      };
    });
  });
}

/** The carriers as which each source arrives at a face; sources that do not reach it are missing. */
function arrivalsAt(graph: StateGraph, face: WorkFace, sources: readonly SourceVertex[]): Map<SourceVertex, Carrier[]> {
  const arrivals = new Map<SourceVertex, Carrier[]>();
  for (const [carrier, targets] of faceVertices(face)) {
    const distance = barrierDistance(graph, targets, null);
    for (const source of sources) {
      if (distance.gates[source.vertex] === UNREACHED) continue;
      arrivals.set(source, [...(arrivals.get(source) ?? []), carrier]);
    }
  }
  return arrivals;
}

function strictest(rules: readonly Requirement[]): Requirement {
  const [first, ...others] = rules;
  if (first === undefined) throw new RangeError("a source that reaches a face arrives as something");
  return others.reduce((strict, rule) => (rule.barriers > strict.barriers ? rule : strict), first);
}
