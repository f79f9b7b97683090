"use client";

import { useEffect, useRef, useState } from "react";
import type { Setup } from "../../core/schedule/setup";
import type { Timeline, TimelineModel } from "../../core/schedule/timeline";
import type { TimelineReply, TimelineRequest } from "../../workers/timeline.worker";

/** The timeline for what is set up now, worked out in a worker; until its answer comes the last one stays. */
export function useTimeline(
  model: TimelineModel,
  setup: Setup,
  start_ms: number,
  window: TimelineModel["window"],
  initial: Timeline,
): { timeline: Timeline; working: boolean; failed: boolean } {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState({ id: 0, timeline: initial });
  const [wanted, setWanted] = useState(0);
  const [failed, setFailed] = useState(false);
  const key = JSON.stringify([setup, start_ms, window]);
  const first = useRef(key);
  useEffect(() => {
    // What the server worked out needs no worker.
    if (key === first.current && worker.current === null) return;
    if (worker.current === null) {
      worker.current = new Worker(new URL("../../workers/timeline.worker.ts", import.meta.url));
      worker.current.onmessage = ({ data }: MessageEvent<TimelineReply>) =>
        setAnswer((last) => (data.id > last.id ? data : last));
      worker.current.onerror = () => setFailed(true);
    }
    const id = ++asked.current;
    setWanted(id);
    worker.current.postMessage({ id, model: { ...model, window }, setup, start_ms } satisfies TimelineRequest);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that changes; the model is the page's
  }, [key]);
  useEffect(() => () => worker.current?.terminate(), []);
  return { timeline: answer.timeline, working: wanted > answer.id, failed };
}
