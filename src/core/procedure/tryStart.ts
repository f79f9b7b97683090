import type { Carrier } from "../plant/carriers";
import { isTransformer, isVessel } from "../plant/kinds";
import { itemTagOf, type StepList } from "./steps";

/** How it is tried whether anything starts: in what words, and by which ways, each of which is tried. */
export function howToTry(list: StepList, hasInterlock: boolean): Readonly<{ words: string; ways: readonly string[] }> {
  const all = list.faces.join(", ");
  const { points } = list.plan;
  if (!startsNothing(list)) return { words: tryWords(all, hasInterlock), ways: WAYS_OF_STARTING };
  const handles = points.map(({ device }) => `the handle of ${device}`);
  return { words: tryHandles(all), ways: handles.length > 0 ? handles : WAYS_OF_STARTING };
}

/** Each is tried: a start blocked at one desk may be open at another. */
const WAYS_OF_STARTING = ["at the machine", "from the control room", "by an automatic or interlocked start"] as const;

function tryWords(all: string, hasInterlock: boolean): string {
  const doubt = hasInterlock
    ? " Where an interlock already blocks the start this proves nothing: the proof counts."
    : "";
  return `Try every way of starting ${all}. Nothing must move. Leave the controls off.${doubt}`;
}

/** What has no start is tried at what holds it. */
function tryHandles(all: string): string {
  return `Nothing at ${all} starts by itself. Try to move every locked point by its own handle, past its lock. None moves.`;
}

/** What moves or starts only by something else: a line, a vessel, a conductor. Anything else may start. */
const STILL: ReadonlySet<string> = new Set([
  "header",
  "junction",
  "tee",
  "pipe",
  "busbar",
  "incomer",
  "exchanger",
  "jacket",
  "coil",
  "sump",
  "sewer",
  "flare",
  "stack",
]);
const MOVES: ReadonlySet<Carrier> = new Set(["shaft", "gravity", "control", "hydraulic", "pneumatic", "bulk"]);

/** Nothing at these faces can be started: no button of theirs, and nothing comes to them that would turn or lower them. */
function startsNothing({ plan, graph, item, faces }: StepList): boolean {
  return faces.every((face) => {
    const { kind } = item(itemTagOf(graph, face));
    const isStill = STILL.has(kind) || isVessel(kind) || isTransformer(kind);
    return isStill && !plan.waysIn.some((way) => way.face === face && MOVES.has(way.carrier));
  });
}
