import type { Job } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import { familyOf, type Family } from "../requirement/grades";
import type { RuleProfile } from "../requirement/profile";
import { requiredGrade, type Requirement, type Situation } from "../requirement/requiredGrade";
import { contentsGraph, familyGraph } from "../trace/contentsGraph";
import { sourcesOf, type SourceVertex } from "../trace/sources";
import { reached } from "../trace/barrierDistance";
import type { StateGraph } from "../trace/stateGraph";
import { faceVertices, type WorkFace } from "../trace/workFaces";
import { barrierDepths } from "../barrier/barrierDepth";
import { faceByCarrier, facing, type BarrierField, type Pair } from "../barrier/pairs";
import { whatStandsAt, type Holds, type WhatStands } from "./whatStands";

export type Scope = "contents" | "energy";

/** The same field over the ways of a scope. */
export function scoped(field: BarrierField, scope: Scope): BarrierField {
  return scope === "energy" ? field : { ...field, graph: contentsGraph(field.graph) };
}

/** What one energy asks as it arrives in one form. */
export type Demand = Requirement &
  Readonly<{
    arrives: Carrier;
    /** Asked of the contents, on ways where they may come themselves, or of any push by any way. */
    scope: Scope;
    /** Barriers there would be against this form of arrival with every creditable device isolated. */
    available: number;
    /** There may be more of them: nobody looked to the end, see barrierDepths. */
    availableIsLeast: boolean;
  }>;

export type RequiredPair = Pair &
  Readonly<{
    /** One for each form in which it arrives, the one that is hardest to hold first. */
    demands: readonly Demand[];
  }>;

/**
 * Every feeding source that may reach a face, with what is asked between them: the job's own plain `require` by the
 * carrier supplied, else what the profile asks of each form in which it arrives. Steam that arrives as heat through a
 * jacket is asked what heat is asked; hydrogen that arrives as hydrogen, what hydrogen is.
 *
 * `isFlange`: the faces are flanges to be opened, see whatStandsAt. Cost: a search for each face and arriving carrier, more
 * where devices stop several carriers.
 */
export function requirePairs(field: BarrierField, job: Job, profile: RuleProfile, isFlange = false): RequiredPair[] {
  const { graph } = field;
  const { feeding } = sourcesOf(graph);
  return field.faces.flatMap((face) => {
    const arrivals = arrivalsAt(graph, face, feeding);
    const reaching = feeding.filter((source) => arrivals.has(source));
    const stands = whatStandsAt(graph, face, feeding, isFlange);
    const asked = reaching.map((source) => ({
      source,
      demands: arrivals.get(source)!.flatMap(({ arrives, direct }) => {
        const isContents = direct && familyOf(arrives) === "flow";
        const asking = { face, source, arrives, stands };
        const push = demandOf(job, profile, { ...asking, scope: "energy", direct: direct && !isContents });
        if (!isContents || job.require) return [push];
        return [demandOf(job, profile, { ...asking, scope: "contents", direct: true }), push];
      }),
    }));
    const deepest = Math.max(0, ...asked.flatMap(({ demands }) => demands.map((demand) => demand.barriers)));
    const overall = barrierDepths(field, face, reaching, field.creditable, { enough: deepest });
    // A plain number of barriers holds against every form at once; a profile asks of each form what is fit for it.
    const byForm = new Map<string, ReturnType<typeof barrierDepths>>();
    const depthsFor = (carrier: Carrier, scope: Scope) => {
      const key = `${carrier} ${scope}`;
      const own = faceByCarrier(face, carrier);
      const known = byForm.get(key);
      const found =
        known ??
        barrierDepths(facing(scoped(field, scope), [own]), own, reaching, field.creditable, { enough: deepest });
      byForm.set(key, found);
      return found;
    };
    return asked.map(({ source, demands }): RequiredPair => {
      const known = demands.map((demand): Demand => {
        const depths = job.require ? overall : depthsFor(demand.arrives, demand.scope);
        const { depth, isLeast } = depths.get(source) ?? { depth: 0, isLeast: false };
        return { ...demand, available: depth, availableIsLeast: isLeast };
      });
      known.sort(
        (a, b) =>
          a.available - a.barriers - (b.available - b.barriers) ||
          b.barriers - a.barriers ||
          Number(b.positive) - Number(a.positive),
      );
      const worst = known[0];
      const [required, available] = [worst?.barriers ?? 0, worst?.available ?? 0];
      return { source, face, demands: known, required, available, k: Math.min(required, available) };
    });
  });
}

type Asking = Readonly<{
  face: WorkFace;
  source: SourceVertex;
  arrives: Carrier;
  scope: Scope;
  direct: boolean;
  stands: WhatStands;
}>;

function demandOf(job: Job, profile: RuleProfile, asking: Asking): Omit<Demand, "available" | "availableIsLeast"> {
  const { face, source, arrives, scope, direct, stands } = asking;
  if (job.require) {
    return {
      arrives,
      scope,
      family: familyOf(source.carrier),
      grade: null,
      barriers: job.require[source.carrier] ?? 0,
      positive: false,
      row: "require",
      reason: "the job's own requirement",
      source: "the job",
    };
  }
  const isFlow = familyOf(arrives) === "flow";
  const isContents = isFlow && scope === "contents";
  const situation: Situation = {
    how: face.how,
    supplied: source.carrier,
    carrier: arrives,
    direct,
    contents: isContents ? stands.contents(source, arrives).map(({ contents }) => contents) : [undefined],
    voltage_V: familyOf(arrives) === "wire" ? stands.voltage_V(source, arrives) : undefined,
    longerThanShift: job.longerThanShift,
  };
  const asked = requiredGrade(profile, situation);
  return { arrives, scope, ...asked, ...(isContents ? saysWhose(profile, situation, asked, asking) : {}) };
}

/** Where something else than the source's own contents asks the most, the reason names it. */
function saysWhose(
  profile: RuleProfile,
  situation: Situation,
  asked: Requirement,
  { source, arrives, stands }: Asking,
): Partial<Requirement> {
  const all = stands.contents(source, arrives);
  const asksAsMuch = (some: readonly Holds[]) =>
    requiredGrade(profile, { ...situation, contents: some.map(({ contents }) => contents) }).grade === asked.grade;
  if (asksAsMuch(all.slice(0, 1))) return {};
  const whose = all.find((one) => asksAsMuch([one]));
  if (whose === undefined) return {};
  const holds = whose.contents === undefined ? "something that nobody wrote down" : whose.contents.fluid;
  return { reason: `${asked.reason} (${whose.place} holds ${holds})` };
}

/** As what a source arrives, and whether it may come without changing its form on the way. */
type Arrival = Readonly<{ arrives: Carrier; direct: boolean }>;

/** How each source arrives at a face; sources that do not reach it are missing. */
function arrivalsAt(graph: StateGraph, face: WorkFace, sources: readonly SourceVertex[]): Map<SourceVertex, Arrival[]> {
  const arrivals = new Map<SourceVertex, Arrival[]>();
  const onlyInside = new Map<SourceVertex, Arrival[]>();
  for (const [arrives, targets] of faceVertices(graph, face)) {
    const family = familyOf(arrives);
    const entered = targets.some((target) => graph.in.first[target]! < graph.in.first[target + 1]!);
    if (!entered && !sources.some((source) => targets.includes(source.vertex))) continue;
    const nothingShut = new Uint8Array(graph.vertexCount);
    const comes = reached(graph, targets, nothingShut, "in");
    const unchanged = reached(familyGraph(graph, family), targets, nothingShut, "in");
    const byLine =
      targets.some((target) => comesIn(graph, target, family)) ||
      sources.some((source) => targets.includes(source.vertex));
    const into = byLine ? arrivals : onlyInside;
    for (const source of sources) {
      if (comes[source.vertex] === 0) continue;
      const form = { arrives, direct: unchanged[source.vertex] === 1 };
      const known = into.get(source);
      if (known) known.push(form);
      else into.set(source, [form]);
    }
  }
  // Never drop the only form in which something arrives.
  for (const [source, forms] of onlyInside) if (!arrivals.has(source)) arrivals.set(source, forms);
  return arrivals;
}

/**
 * May anything come in at this vertex? What flows comes by a line: where a cylinder could press on air and no air line
 * is linked, there is nothing to open, and what moves the cylinder is asked about for itself.
 */
function comesIn(graph: StateGraph, target: number, family: Family): boolean {
  for (let arc = graph.in.first[target]!; arc < graph.in.first[target + 1]!; arc++) {
    if (family !== "flow" || graph.in.link[arc]! >= 0) return true;
  }
  return false;
}
