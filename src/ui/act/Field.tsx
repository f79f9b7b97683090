import type { InputHTMLAttributes, ReactNode, TextareaHTMLAttributes } from "react";

type Shared = Readonly<{ label: string; hint?: ReactNode }>;

/** A labelled input. The hint says what is wanted before anything is wrong. */
export function Field({ label, hint, className = "", ...input }: Shared & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-medium">{label}</span>
      <input {...input} className={`input w-full ${className}`} />
      {hint && <span className="text-sm opacity-80">{hint}</span>}
    </label>
  );
}

export function TextField({
  label,
  hint,
  className = "",
  ...area
}: Shared & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-medium">{label}</span>
      <textarea {...area} className={`textarea w-full ${className}`} />
      {hint && <span className="text-sm opacity-80">{hint}</span>}
    </label>
  );
}
