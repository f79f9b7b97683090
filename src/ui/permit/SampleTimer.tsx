"use client";

import { useEffect, useState } from "react";

/** Counts down to a moment of the server's clock, whatever the device's own clock says. */
export function SampleTimer({ ready_ms, now_ms, done }: { ready_ms: number; now_ms: number; done: string }) {
  const [left_s, setLeft] = useState(Math.ceil((ready_ms - now_ms) / 1000));
  useEffect(() => {
    const began = performance.now();
    const look = () => setLeft(Math.ceil((ready_ms - now_ms - (performance.now() - began)) / 1000));
    look();
    const tick = setInterval(look, 250);
    return () => clearInterval(tick);
  }, [ready_ms, now_ms]);
  if (left_s <= 0) return <strong>{done}</strong>;
  const minutes = Math.floor(left_s / 60);
  return (
    <span className="num" role="timer">
      {minutes > 0 ? `${minutes} min ` : ""}
      {left_s % 60} s
    </span>
  );
}
