import type { Setup } from "../core/schedule/setup";
import { timelineOf, type Timeline, type TimelineModel } from "../core/schedule/timeline";

export type TimelineRequest = Readonly<{ id: number; model: TimelineModel; setup: Setup; start_ms: number }>;
export type TimelineReply = Readonly<{ id: number; timeline: Timeline }>;

/** The same sums as on the server, off the page, while somebody drags. */
self.onmessage = ({ data }: MessageEvent<TimelineRequest>) => {
  const timeline = timelineOf(data.model, data.setup, data.start_ms);
  self.postMessage({ id: data.id, timeline } satisfies TimelineReply);
};
