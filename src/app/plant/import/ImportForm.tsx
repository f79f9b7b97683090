"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { Look } from "@/server/plant/lookAtRegister";
import { useLive } from "@/ui/act/useLive";
import { ANSWER_WITHIN_MS, fetchInTime } from "@/ui/net/fetchInTime";
import { LookPanel } from "./LookPanel";

type No = Readonly<{ ok: false; problems: readonly string[] }>;
type Looked = No | (Readonly<{ ok: true; warnings: readonly string[] }> & Look);
type Imported = No | Readonly<{ ok: true; revision: number; items: number; warnings: readonly string[] }>;

const SILENT: No = {
  ok: false,
  problems: ["The server did not answer. Look at the revisions below before you send it again."],
};

/** Files chosen, looked at, then signed for: what is imported is what was looked at. */
export function ImportForm() {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const [look, setLook] = useState<Looked | null>(null);
  const [done, setDone] = useState<Imported | null>(null);
  const [busy, setBusy] = useState<"look" | "import" | null>(null);
  const live = useLive();

  async function post<Answer>(address: string, more: Readonly<Record<string, string>>): Promise<Answer | No> {
    const fields = new FormData(form.current!);
    for (const [name, value] of Object.entries(more)) fields.set(name, value);
    try {
      const response = await fetchInTime(address, { method: "POST", body: fields }, ANSWER_WITHIN_MS.file);
      return (await response.json()) as Answer;
    } catch {
      return SILENT;
    }
  }

  async function lookAt() {
    setBusy("look");
    setDone(null);
    setLook(await post<Looked>("/api/plant/look", {}));
    setBusy(null);
  }

  async function sign(seen: Look) {
    setBusy("import");
    const more = { seen: seen.hash, on: String(seen.on), actId: crypto.randomUUID() };
    const answer = await post<Imported>("/api/plant/import", more);
    setDone(answer);
    if (answer.ok) {
      setLook(null);
      router.refresh();
    }
    setBusy(null);
  }

  const seen = look?.ok ? look : null;
  return (
    <form
      ref={form}
      method="post"
      aria-label="Import a register"
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (busy === null) void (seen && !seen.same ? sign(seen) : lookAt());
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex min-w-60 flex-1 flex-col gap-1">
          <span className="text-sm font-medium">Plant files</span>
          <input
            type="file"
            name="files"
            multiple
            accept=".json,.csv,.xlsx"
            className="file-input w-full"
            // What was looked at is no longer what is chosen.
            onChange={() => setLook(null)}
          />
        </label>
        <button
          type="button"
          className={`btn ${seen && !seen.same ? "btn-ghost" : "btn-primary"}`}
          disabled={!live}
          aria-disabled={busy !== null}
          onClick={() => busy === null && void lookAt()}
        >
          {busy === "look" ? "Looking…" : seen ? "Look again" : "Look at what changes"}
        </button>
      </div>
      <div role="status" className="flex flex-col gap-4">
        {seen && <LookPanel look={seen} />}
        {seen && <Warnings all={seen.warnings} />}
      </div>
      {seen && !seen.same && (
        <div className="flex flex-wrap items-end gap-3">
          <label className="flex flex-col gap-1 text-sm">
            <span>Your PIN</span>
            <input name="pin" type="password" inputMode="numeric" autoComplete="off" className="input num w-28" />
          </label>
          <button type="submit" className="btn btn-primary" aria-disabled={busy !== null}>
            {busy === "import" ? "Importing…" : `Import as revision ${seen.on + 1}`}
          </button>
        </div>
      )}
      <div role="alert">
        {[look, done].map((answer, i) =>
          answer && !answer.ok ? (
            <ul key={i} className="border-error bg-error/10 border-l-4 px-4 py-2">
              {answer.problems.map((problem) => (
                <li key={problem}>{problem}</li>
              ))}
            </ul>
          ) : null,
        )}
        {done?.ok && (
          <div className="border-success border-l-4 px-4 py-2">
            <p>
              Imported as revision {done.revision}: {done.items} items.
            </p>
            <Warnings all={done.warnings} />
          </div>
        )}
      </div>
    </form>
  );
}

function Warnings({ all }: { all: readonly string[] }) {
  if (all.length === 0) return null;
  return (
    <div className="text-sm">
      <p className="font-medium">Look at these:</p>
      <ul>
        {all.map((warning) => (
          <li key={warning}>{warning}</li>
        ))}
      </ul>
    </div>
  );
}
