import type { Layout } from "../../core/lantern/lanternLayout";
import type { LanternScene } from "../../core/lantern/lanternScene";
import { layoutRequestOf } from "../../core/lantern/nodeSize";
import { keptAnswers } from "../runtime/keptSome";
import { heavy } from "../runtime/workers";

const KEPT = 60;
const layouts = keptAnswers<string, Layout>(KEPT);

/** Where the parts of a lantern stand: laid out in another thread, and once for the same scene. */
export function layoutOf(scene: LanternScene): Promise<Layout> {
  const request = layoutRequestOf(scene);
  return layouts(JSON.stringify(request), () => heavy("lay out", request));
}
