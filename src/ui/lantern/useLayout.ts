"use client";

import { useEffect, useState } from "react";
import type { Layout, LayoutRequest } from "../../core/lantern/lanternLayout";

export type LayoutState = { state: "working" } | { state: "failed" } | { state: "done"; layout: Layout };

/** Lays out in a worker, off the page. The same request is laid out once. */
export function useLayout(request: LayoutRequest): LayoutState {
  const key = JSON.stringify(request);
  const [result, setResult] = useState<{ key: string; state: LayoutState } | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL("../../workers/lanternLayout.worker.ts", import.meta.url));
    worker.onmessage = (event: MessageEvent<{ ok: true; layout: Layout } | { ok: false }>) => {
      setResult({ key, state: event.data.ok ? { state: "done", layout: event.data.layout } : { state: "failed" } });
    };
    worker.onerror = () => setResult({ key, state: { state: "failed" } });
    worker.postMessage(JSON.parse(key));
    return () => worker.terminate();
  }, [key]);
  return result?.key === key ? result.state : { state: "working" };
}
