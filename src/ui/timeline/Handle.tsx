"use client";

import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import type { ScaleLinear } from "d3";
import { dayAndClock } from "../text/when";

const MINUTE_MS = 60_000;
/** Moves by quarters of an hour; a page key by whole hours. */
const STEP_MS = 15 * MINUTE_MS;
const PAGE_MS = 60 * MINUTE_MS;
const KEYS: Readonly<Record<string, number>> = {
  ArrowLeft: -STEP_MS,
  ArrowDown: -STEP_MS,
  ArrowRight: STEP_MS,
  ArrowUp: STEP_MS,
  PageDown: -PAGE_MS,
  PageUp: PAGE_MS,
};

type Props = Readonly<{
  label: string;
  at_ms: number;
  range: readonly [number, number];
  x: ScaleLinear<number, number>;
  top: number;
  bottom: number;
  timeZone: string;
  onMove: (at_ms: number) => void;
}>;

/** A moment on the axis that can be dragged, or moved by keys. While it is held the axis may grow under it. */
export function Handle({ label, at_ms, range, x, top, bottom, timeZone, onMove }: Props) {
  const held = useRef<{ px: number; at_ms: number; msPerPx: number } | null>(null);

  function grab(event: PointerEvent<SVGGElement>) {
    const svg = event.currentTarget.ownerSVGElement!;
    const [from = 0, to = 1] = x.domain();
    const [left = 0, right = 1] = x.range();
    const scale = svg.getBoundingClientRect().width / svg.viewBox.baseVal.width;
    held.current = { px: event.clientX, at_ms, msPerPx: (to - from) / (right - left) / scale };
    event.currentTarget.setPointerCapture(event.pointerId);
  }
  function drag(event: PointerEvent<SVGGElement>) {
    if (held.current === null) return;
    const moved_ms = (event.clientX - held.current.px) * held.current.msPerPx;
    onMove(Math.round((held.current.at_ms + moved_ms) / STEP_MS) * STEP_MS);
  }
  function press(event: KeyboardEvent<SVGGElement>) {
    const by = KEYS[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onMove(at_ms + by);
  }
  const release = () => (held.current = null);
  const at = x(at_ms);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={range[0]}
      aria-valuemax={range[1]}
      aria-valuenow={at_ms}
      aria-valuetext={dayAndClock(at_ms, timeZone)}
      className="cursor-ew-resize touch-none"
      onPointerDown={grab}
      onPointerMove={drag}
      onPointerUp={release}
      onPointerCancel={release}
      onKeyDown={press}
    >
      <title>{`${label}: ${dayAndClock(at_ms, timeZone)}`}</title>
      <rect x={at - 16} y={bottom} width={32} height={32} fill="transparent" />
      <line x1={at} x2={at} y1={top} y2={bottom + 4} stroke="var(--color-accent)" strokeWidth={3} />
      <path
        d={`M${at} ${bottom + 2}l15 9v18h-30v-18Z`}
        strokeWidth={2}
        style={{ fill: "var(--color-base-100)", stroke: "var(--color-accent)" }}
      />
      <path d={`M${at - 4} ${bottom + 15}v10m8 -10v10`} stroke="var(--color-accent)" strokeWidth={2} />
    </g>
  );
}
