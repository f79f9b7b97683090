import { Suspense, type ComponentProps } from "react";
import { layoutOf } from "@/server/job/layouts";
import { Lantern } from "@/ui/lantern/Lantern";

type Props = Omit<ComponentProps<typeof Lantern>, "layout">;

/** The lantern, laid out on the server. The rest of the page does not wait for it. */
export function LaidLantern(props: Props) {
  return (
    <Suspense
      fallback={
        <p className="grid place-items-center" style={{ height: props.height ?? 460 }}>
          Drawing the plant…
        </p>
      }
    >
      <Laid {...props} />
    </Suspense>
  );
}

async function Laid(props: Props) {
  const layout = await layoutOf(props.scene).catch(() => null);
  return layout === null ? (
    <p className="border-base-300 grid place-items-center border" style={{ height: props.height ?? 460 }}>
      The drawing failed. The lists hold the same facts.
    </p>
  ) : (
    <Lantern {...props} layout={layout} />
  );
}
