"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { meant, SHEET } from "./keys";

/** The second of two keys comes within so long. */
const WITHIN_MS = 1500;

/** Keys that go places, and the sheet that names them all. */
export function Keys() {
  const router = useRouter();
  const sheet = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    let waitsSince = -Infinity;
    const press = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement | null;
      const isTyping = at !== null && (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName));
      if (isTyping || event.ctrlKey || event.metaKey || event.altKey || event.key === "Shift") return;
      const what = meant(event.key, event.timeStamp - waitsSince < WITHIN_MS);
      waitsSince = -Infinity;
      if (what === null) return;
      event.preventDefault();
      if ("waits" in what) waitsSince = event.timeStamp;
      else if ("go" in what) router.push(what.go);
      else if (!sheet.current?.open) sheet.current?.showModal();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [router]);
  return (
    <dialog
      ref={sheet}
      aria-labelledby="keys-head"
      className="bg-base-100 text-base-content m-auto w-[min(30rem,94vw)] border p-4"
    >
      <h2 id="keys-head" className="mb-2 text-lg font-semibold">
        Keys
      </h2>
      <dl className="grid grid-cols-[7rem_1fr] gap-y-1">
        {SHEET.map(([keys, does]) => (
          <div key={keys} className="contents">
            <dt>
              <kbd className="font-mono font-medium">{keys}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <form method="dialog" className="mt-3">
        <button className="btn btn-sm">Close</button>
      </form>
    </dialog>
  );
}
