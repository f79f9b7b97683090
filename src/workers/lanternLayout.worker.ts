import ELK from "elkjs/lib/elk.bundled.js";
import { layoutAnswer, layoutQuestion, type LayoutRequest } from "../core/lantern/lanternLayout";

const elk = new ELK();

// Set after the import: the layout library sets a handler of its own while it loads.
self.onmessage = (event: MessageEvent<LayoutRequest>) => {
  elk.layout(layoutQuestion(event.data)).then(
    (laid) => self.postMessage({ ok: true, layout: layoutAnswer(laid) }),
    (error: unknown) => self.postMessage({ ok: false, error: String(error) }),
  );
};
