"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";

/** Looks again when the round is over by itself, so that nobody begins to sign in one that has ended. */
export function WhenOver({ in_ms }: { in_ms: number }) {
  const router = useRouter();
  useEffect(() => {
    const timer = setTimeout(() => router.refresh(), Math.max(0, in_ms) + 500);
    return () => clearTimeout(timer);
  }, [in_ms, router]);
  return null;
}
