"use client";

import { ScanLine } from "lucide-react";
import { useId, useState } from "react";
import { readCode } from "./readCode";
import { useFault } from "./faults";

/** A field for what stands on a plate or a lock: typed, or read off its code by the camera. */
export function ScanField({ name, label, scan }: Readonly<{ name: string; label: string; scan: string }>) {
  const id = useId();
  const fault = useFault(name);
  const [seen, setSeen] = useState("");
  const [said, setSaid] = useState("");

  async function read(file: File | undefined) {
    if (!file) return;
    setSaid("Reading…");
    const code = await readCode(file);
    setSeen(code ?? "");
    setSaid(code === null ? `No code found in the picture. Take it nearer, or type it.` : "Read from the code.");
  }

  return (
    <div className="flex flex-col gap-1 text-sm">
      <label htmlFor={`${id}-seen`}>{label}</label>
      <div className="flex items-center gap-2">
        <input
          id={`${id}-seen`}
          name={name}
          autoComplete="off"
          autoCapitalize="characters"
          className="input tag w-36"
          value={seen}
          onChange={(event) => setSeen(event.target.value)}
          aria-invalid={fault ? true : undefined}
          aria-describedby={`${id}-said`}
        />
        <label className="btn btn-outline focus-within:outline-accent focus-within:outline-3 focus-within:outline-offset-2">
          <ScanLine aria-hidden size={20} /> Scan
          <input
            type="file"
            accept="image/*"
            capture="environment"
            aria-label={scan}
            className="sr-only"
            onChange={(event) => void read(event.target.files?.[0])}
          />
        </label>
      </div>
      <span id={`${id}-said`} aria-live="polite" className={fault ? "text-error font-medium" : said ? "" : "sr-only"}>
        {fault ? fault.message : said}
      </span>
    </div>
  );
}
