import type { Job } from "../request/jobFile";
import { familyOf } from "../requirement/grades";
import { profileOf } from "../requirement/profiles";
import { isHarmful } from "../requirement/requiredGrade";
import { isVessel } from "../plant/kinds";
import { itemTagOf, type StepList } from "./steps";

/** What is so unlikely to arrive that no hazard is made of it, see tiers. */
const FAR = 3;

/**
 * Faces round which a barrier with signs stands before anything is let out, opened or earthed: where harmful contents can come
 * out of what is opened, where a weight hangs that may come down, and at high voltage. Common practice, no source.
 *
 * Cost: linear in the ways in and in what is stored.
 */
export function facesToBarOff(
  { plan, graph, item }: StepList,
  faces: Job["faces"],
  earthed: readonly string[],
): string[] {
  const profile = profileOf(plan.profile);
  const opened = new Set(
    faces.flatMap(({ place, how }) => (how.some((one) => one === "open" || one === "enter") ? [place] : [])),
  );
  const harms = (source: string) => isHarmful(profile, item(itemTagOf(graph, source)).contents);
  const comesOut = (face: string) => {
    // What only turns it or feeds it by way of other machines does not come out of it.
    const flows = plan.routes.filter((route) => route.face === face && familyOf(route.arrives) === "flow");
    // What nothing flows to and holds nothing, a motor say, is opened and nothing comes out.
    const mayHold = flows.length > 0 || isVessel(item(itemTagOf(graph, face)).kind);
    return opened.has(face) && ((mayHold && harms(face)) || flows.some(({ source }) => harms(source)));
  };
  // A crane across the site that may feed back over a shared bus hangs over nobody here.
  const hangs = (face: string) =>
    plan.stored.some((row) => row.face === face && row.carrier === "gravity" && row.tier < FAR);
  const all = [...new Set(faces.map(({ place }) => place))];
  return all.filter((face) => comesOut(face) || hangs(face) || earthed.includes(face));
}

/** Faces that people enter and that were written down to be turned until their hatch can be reached. */
export function facesToPosition({ graph, item }: StepList, faces: Job["faces"]): string[] {
  return [
    ...new Set(
      faces.flatMap(({ place, how }) =>
        how.includes("enter") && item(itemTagOf(graph, place)).space?.turned === true ? [place] : [],
      ),
    ),
  ];
}
