"use client";

import { useRouter } from "next/navigation";
import type { MouseEvent, ReactNode } from "react";

/**
 * Plain links inside change the page without loading it anew. For long lists: one component for all of them, where each
 * Link of the framework is one of its own, to be described to the browser and asked for ahead.
 */
export function SoftLinks({ children }: { children: ReactNode }) {
  const router = useRouter();
  const follow = (event: MouseEvent<HTMLElement>) => {
    const link = (event.target as Element).closest("a");
    const isPlain = event.button === 0 && !(event.metaKey || event.ctrlKey || event.shiftKey || event.altKey);
    if (link === null || !isPlain || event.defaultPrevented || link.origin !== location.origin) return;
    if (link.target !== "" || link.hasAttribute("download")) return;
    event.preventDefault();
    router.push(link.pathname + link.search + link.hash);
  };
  // The links inside are what is reached by keyboard; this only listens.
  return <div onClick={follow}>{children}</div>;
}
