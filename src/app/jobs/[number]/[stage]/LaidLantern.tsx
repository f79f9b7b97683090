import { Suspense, type ComponentProps } from "react";
import type { LanternScene } from "@/core/lantern/lanternScene";
import { layoutOf } from "@/server/job/layouts";
import type { LanternView } from "@/server/job/plans";
import { Lantern, type Frame } from "@/ui/lantern/Lantern";

type Props = Omit<ComponentProps<typeof Lantern>, "layout" | "frames"> & Pick<LanternView, "frames">;

/** The lantern, laid out on the server. The rest of the page does not wait for it. */
export function LaidLantern(props: Props) {
  return (
    <Suspense
      fallback={
        <p className="grid min-h-80 place-items-center" style={{ height: props.height ?? "100%" }}>
          Drawing the plant…
        </p>
      }
    >
      <Laid {...props} />
    </Suspense>
  );
}

async function Laid({ frames, ...props }: Props) {
  const layout = await layoutOf(props.scene).catch(() => null);
  return layout === null ? (
    <p className="grid min-h-80 place-items-center" style={{ height: props.height ?? "100%" }}>
      The drawing failed. The lists hold the same facts.
    </p>
  ) : (
    <Lantern {...props} frames={numbered(props.scene, frames)} layout={layout} />
  );
}

/** The frames in numbers: a tag is sent once, however many frames it is in. */
function numbered({ nodes, edges }: LanternScene, frames: LanternView["frames"]): Frame[] {
  const nodeAt = new Map(nodes.map(({ id }, index) => [id, index]));
  const edgeAt = new Map(edges.map(({ id }, index) => [id, index]));
  const known = (at: ReadonlyMap<string, number>, ids: readonly string[]) =>
    ids.flatMap((id) => (at.has(id) ? [at.get(id)!] : []));
  return frames.map((frame) => ({
    label: frame.label,
    nodes: known(nodeAt, frame.nodes),
    edges: known(edgeAt, frame.edges),
    isolated: known(nodeAt, frame.isolated),
  }));
}
