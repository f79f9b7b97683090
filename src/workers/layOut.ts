import ELK from "elkjs/lib/elk.bundled.js";
import { layoutAnswer, layoutQuestion, type Layout, type LayoutRequest } from "../core/lantern/lanternLayout";

let elk: InstanceType<typeof ELK> | undefined;

/** A layered layout. Cost: one to two seconds for three hundred places. */
export async function layOut(request: LayoutRequest): Promise<Layout> {
  elk ??= new ELK();
  return layoutAnswer(await elk.layout(layoutQuestion(request)));
}
