"use client";

import { ANSWER_WITHIN_MS, fetchInTime } from "@/ui/net/fetchInTime";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";

type Answer =
  { ok: true; revision: number; items: number; warnings: string[] } | { ok: false; problems: string[]; field?: string };

export function ImportForm() {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [sending, setSending] = useState(false);

  async function send() {
    setSending(true);
    setAnswer(null);
    const fields = new FormData(form.current!);
    fields.set("actId", crypto.randomUUID());
    try {
      const response = await fetchInTime("/api/plant/import", { method: "POST", body: fields }, ANSWER_WITHIN_MS.file);
      const read = (await response.json()) as Answer;
      setAnswer(read);
      if (read.ok) router.refresh();
    } catch {
      setAnswer({
        ok: false,
        problems: ["The server did not answer. Look at the revisions below before you send it again."],
      });
    }
    setSending(false);
  }

  return (
    <form
      ref={form}
      aria-label="Import a register"
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!sending) void send();
      }}
    >
      <label className="flex flex-col gap-1">
        <span className="text-sm font-medium">Plant files</span>
        <input type="file" name="files" multiple accept=".json,.csv" className="file-input w-full" />
      </label>
      <div className="flex items-end gap-3">
        <label className="flex flex-col gap-1 text-sm">
          <span>Your PIN</span>
          <input name="pin" type="password" inputMode="numeric" autoComplete="off" className="input num w-28" />
        </label>
        <button type="submit" className="btn btn-primary" aria-disabled={sending}>
          {sending ? "Checking…" : "Check and import"}
        </button>
      </div>
      <div role="alert">
        {answer && !answer.ok && (
          <ul className="border-error bg-error/10 border-l-4 px-4 py-2">
            {answer.problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        )}
        {answer?.ok && (
          <div className="border-success border-l-4 px-4 py-2">
            <p>
              Imported as revision {answer.revision}: {answer.items} items.
            </p>
            {answer.warnings.length > 0 && <p className="mt-2 font-medium">Look at these:</p>}
            <ul>
              {answer.warnings.map((warning) => (
                <li key={warning}>{warning}</li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </form>
  );
}
