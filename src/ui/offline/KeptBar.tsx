"use client";

import { Link } from "../text/Link";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useId, useState } from "react";
import { sendAll } from "./keptActs";
import { useKeptActs, useOnline } from "./useKeptActs";

/** What this device keeps, on every page: how many acts wait, who can send them, and whether there is a network. */
export function KeptBar({ personId, build }: { personId: string; build: string }) {
  const kept = useKeptActs();
  const online = useOnline();
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const id = useId();
  const path = usePathname();
  useEffect(() => {
    // Phones in the field need it; where a browser has none, a reload without a network fails as it always did.
    if (!("serviceWorker" in navigator)) return;
    navigator.serviceWorker.register(`/sw.js?build=${encodeURIComponent(build)}`).catch(() => undefined);
    void navigator.serviceWorker.ready.then(({ active }) => active?.postMessage({ keep: path }));
  }, [path, online, build]);
  const mine = kept.filter((act) => act.personId === personId);
  const waiting = mine.filter((act) => act.refusal === null);
  const stuck = mine.filter((act) => act.refusal !== null);
  const others = [...new Set(kept.filter((act) => act.personId !== personId).map((act) => act.personName))];
  if (online && kept.length === 0) return null;

  async function sign(pin: string) {
    setSending(true);
    setSaid(null);
    setSaid(await sendAll(waiting, pin));
    setSending(false);
    router.refresh();
  }

  return (
    <section
      aria-label="Kept on this device"
      className="border-warning bg-base-200 no-print space-y-2 border-y-2 px-4 py-2 md:px-8"
    >
      {!online && (
        <p>
          <strong>No network.</strong> Steps, readings and pictures are kept on this device. Signing on and off,
          issuing, closing and lifting locks wait for the server: what it has not acknowledged protects nobody.
        </p>
      )}
      {waiting.length > 0 && (
        <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1">
          <details className="min-w-0 flex-1 basis-40 pb-2">
            <summary className="cursor-pointer">
              <strong>
                <span className="num">{waiting.length}</span> done, not signed
              </strong>
            </summary>
            {waiting.map((act) => act.label).join("; ")}. Kept on this device; it counts for nobody yet.
          </details>
          {online && (
            <form
              method="post"
              aria-label="Sign the round"
              className="flex items-end gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                const pin = new FormData(event.currentTarget).get("pin");
                if (!sending) void sign(typeof pin === "string" ? pin : "");
              }}
            >
              <label className="flex flex-col gap-1 text-sm">
                <span>Your PIN</span>
                <input
                  name="pin"
                  type="password"
                  inputMode="numeric"
                  autoComplete="off"
                  className="input num w-24"
                  aria-describedby={`${id}-said`}
                />
              </label>
              <button type="submit" className="btn btn-primary" aria-disabled={sending}>
                {sending ? "Sending…" : waiting.length === 1 ? "Sign it" : `Sign all ${waiting.length}`}
              </button>
            </form>
          )}
        </div>
      )}
      {stuck.length > 0 && (
        <p>
          <strong className="num">{stuck.length}</strong> no longer {stuck.length === 1 ? "fits" : "fit"} what is there.
          Nothing is lost:{" "}
          {[...new Map(stuck.map((act) => [act.page, act])).values()].map((act) => (
            <Link key={act.page} href={act.page} className="link mr-3">
              look at both, {act.label}
            </Link>
          ))}
        </p>
      )}
      {others.length > 0 && <p>Also kept here, for {others.join(", ")} to send with their own PIN.</p>}
      <p id={`${id}-said`} role="alert" className={said ? "border-error border-l-4 px-3" : "sr-only"}>
        {said ?? ""}
      </p>
    </section>
  );
}
