"use client";

import type { RoundKind } from "../../core/rounds/rounds";
import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import { keep, upload } from "../offline/keptActs";
import { newActId } from "./actId";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useId, useMemo, useRef, useState, useTransition, type ReactNode } from "react";
import { goOn } from "./goOn";
import { rememberUsed } from "./OfferedNumbers";
import { FaultContext, type Fault } from "./faults";
import { PAGE_HEADER, pageName } from "./pageName";
import { forgetTyped, keepTyped, restoreTyped, typedKey } from "./typed";
import { useLive } from "./useLive";

type Answer =
  | { ok: true; answer: Record<string, string | number | null>; once?: Record<string, string> }
  | {
      ok: false;
      status: number;
      sentence: string;
      field?: string;
      code: string;
      faults?: readonly Fault[];
      /** Of a round: the act that was refused. */
      entry?: number;
    };

/** Acts that are signed together: see core/rounds. */
export type Round = Readonly<{
  round: RoundKind;
  entries: readonly Readonly<{
    type: string;
    input: Readonly<Record<string, unknown>>;
    /** A field that the answer of an earlier act fills. */
    from?: Readonly<{ entry: number; field: string }>;
    /** What the form puts before this act's names, where it asks the same of several. */
    prefix?: string;
  }>[];
}>;

type Props = Readonly<{
  /** The act's name, as the ledger knows it; of a round, the first of its acts. */
  act: string;
  /** Turns the fields into acts under one signature; the form then sends a round. */
  toRound?: (fields: FormData) => Round;
  /** What the form does not ask. */
  fixed?: Record<string, unknown>;
  /** Fields of which there may be several: sent as lists. */
  listFields?: readonly string[];
  /** Turns the fields into the act's input; by default they go as they are. */
  toInput?: (fields: FormData) => Record<string, unknown>;
  pin?: boolean;
  button: string;
  tone?: "plain" | "strong";
  /** Where to go when it is done; `{name}` is filled from the answer. */
  then?: string;
  /** What this form is, for screen readers. */
  label: string;
  /** Keeps the act on this device when there is no network; only for acts that record and protect nobody. */
  keep?: Readonly<{ personId: string; personName: string; page: string }>;
  /** With `keep`: a second button, by which it is done now and signed later, with others of the round. */
  later?: string;
  /** Of a form that is signed: what the same PIN signs before it, in order; a sentence where it could not. */
  first?: (pin: string) => Promise<string | null>;
  /** A picture in the field `photo` is stored first. */
  withPhoto?: boolean;
  onDone?: () => void;
  /** What the answer tells once, and nobody is told again. */
  onOnce?: (told: Readonly<Record<string, string>>) => void;
  children?: ReactNode;
  compact?: boolean;
}>;

/**
 * A form for one act. The act id is made once for what the person means to do and kept while they try again, so a
 * repeated send is not done twice. What was typed stays when the server refuses or cannot be reached.
 */
export function ActForm({
  act,
  fixed = {},
  listFields = [],
  toInput,
  toRound,
  pin = false,
  button,
  tone = "plain",
  then,
  label,
  children,
  compact,
  keep: keepFor,
  later,
  first,
  withPhoto = false,
  onDone,
  onOnce,
}: Props) {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const meant = useRef<{ ids: readonly string[]; body: string } | null>(null);
  const [fault, setFault] = useState<{ sentence: string; field?: string; faults?: readonly Fault[] } | null>(null);
  const [isBack, setIsBack] = useState(false);
  const key = typedKey(usePathname(), label);
  const [sending, setSending] = useState(false);
  const [looking, startLooking] = useTransition();
  const busy = sending || looking;
  const live = useLive();
  const id = useId();
  const faults = useMemo(() => ({ form: id, faults: fault?.faults ?? [] }), [id, fault]);
  useEffect(() => {
    if (form.current && restoreTyped(key, form.current)) setIsBack(true);
  }, [key]);

  function startAfresh() {
    forgetTyped(key);
    form.current?.reset();
    setIsBack(false);
    setFault(null);
  }

  async function send(signLater = false) {
    const fields = new FormData(form.current!);
    const typedPin = String(fields.get("pin") ?? "");
    fields.delete("pin");
    const picture = withPhoto ? fields.get("photo") : null;
    const photo = picture instanceof File && picture.size > 0 ? picture : null;
    fields.delete("photo");
    const input: Record<string, unknown> = { ...fixed, ...(toInput ? toInput(fields) : asInput(fields, listFields)) };
    const round = toRound?.(fields);
    if (round?.entries.length === 0) return setFault({ sentence: "Nothing is chosen yet." });
    const body = JSON.stringify(round ?? { act, input });
    if (meant.current?.body !== body) {
      meant.current = { ids: (round?.entries ?? [null]).map(() => newActId()), body };
    }
    setSending(true);
    setFault(null);
    const keepIt = async () => {
      await keep({
        actId: meant.current!.ids[0]!,
        type: act,
        input,
        doneAt_ms: Date.now(),
        label,
        photo: input.photo === undefined ? photo : null,
        refusal: null,
        ...keepFor!,
      });
      meant.current = null;
      setSending(false);
      rememberUsed(form.current);
      startAfresh();
      goOn(form.current);
    };
    if (signLater) {
      const empty = emptyField(form.current!);
      if (empty === null) return keepIt();
      setSending(false);
      setFault({ sentence: `${empty.label} is missing.`, field: empty.name });
      return markField(form.current!, empty.name, `${id}-fault`);
    }
    if (keepFor && !navigator.onLine) return keepIt();
    if (photo) {
      const stored = await upload(photo);
      if (stored.how === "no network" && keepFor) return keepIt();
      if (stored.how !== "done") {
        setSending(false);
        return setFault({ sentence: stored.sentence, field: "photo" });
      }
      input.photo = stored.sentence;
    }
    const { ids } = meant.current;
    const hindered = await first?.(typedPin);
    if (hindered) {
      setSending(false);
      return setFault({ sentence: hindered });
    }
    const what = round
      ? { round: round.round, entries: round.entries.map((one, i) => ({ ...one, prefix: undefined, actId: ids[i]! })) }
      : { actId: ids[0]!, type: act, input };
    const answer = await post({ version: 1, ...what, ...(pin ? { pin: typedPin } : {}) });
    // It may have arrived: under the same id it is then answered, and not done twice.
    if (!answer.ok && answer.status === 0 && keepFor) return keepIt();
    setSending(false);
    if (!answer.ok) {
      // A refusal is recorded under its id; trying again after mending something is a new act.
      if (answer.status === 409) meant.current = null;
      const said = prefixed(answer, round?.entries[answer.entry ?? -1]?.prefix, form.current!);
      setFault(said);
      markField(form.current!, said.faults?.[0]?.field ?? said.field, `${id}-fault`);
      return;
    }
    meant.current = null;
    rememberUsed(form.current);
    startAfresh();
    onDone?.();
    if (answer.once) onOnce?.(answer.once);
    const target = then?.replace(/\{(\w+)\}/g, (_, name: string) => String(answer.answer[name] ?? ""));
    if (target) router.push(target);
    else goOn(form.current);
    // Until the page shows what is so now, the same button does nothing: nobody means it twice.
    startLooking(() => router.refresh());
  }

  return (
    <form
      ref={form}
      method="post"
      aria-label={label}
      className={compact ? "flex flex-wrap items-end gap-3" : "flex flex-col gap-4"}
      onSubmit={(event) => {
        event.preventDefault();
        if (!busy) void send();
      }}
      onInput={(event) => {
        (event.target as HTMLElement).removeAttribute("aria-invalid");
        if (form.current) keepTyped(key, form.current);
      }}
      noValidate
    >
      {isBack && (
        <p className="w-full text-sm">
          What you had typed is back.{" "}
          <button type="button" className="link" onClick={startAfresh}>
            Clear
          </button>
        </p>
      )}
      <FaultContext value={faults}>{children}</FaultContext>
      <div className="flex flex-wrap items-end gap-3">
        {pin && (
          <label className="flex flex-col gap-1 text-sm">
            <span>Your PIN</span>
            <input
              name="pin"
              type="password"
              inputMode="numeric"
              autoComplete="off"
              maxLength={20}
              className="input num w-28"
              aria-describedby={fault?.field === "pin" ? `${id}-fault` : undefined}
            />
          </label>
        )}
        <button
          type="submit"
          disabled={!live}
          aria-disabled={busy}
          className={tone === "strong" ? "btn btn-primary" : "btn btn-outline"}
        >
          {sending ? "Sending…" : button}
        </button>
        {keepFor && later && (
          <button
            type="button"
            disabled={!live}
            aria-disabled={busy}
            className="btn btn-outline"
            onClick={() => {
              if (!busy) void send(true);
            }}
          >
            {later}
          </button>
        )}
      </div>
      <div
        id={`${id}-fault`}
        role="alert"
        className={fault ? "border-error bg-error/10 max-w-prose border-l-4 px-3 py-2" : "sr-only"}
      >
        {fault && <FaultWords fault={fault} onField={(field) => markField(form.current!, field, `${id}-fault`)} />}
      </div>
    </form>
  );
}

/** What is wrong, all of it; each line leads to its field. */
function FaultWords({
  fault,
  onField,
}: {
  fault: { sentence: string; faults?: readonly Fault[] };
  onField: (field: string) => void;
}) {
  const { faults = [] } = fault;
  if (faults.length < 2) return <p>{faults[0]?.message ?? fault.sentence}</p>;
  return (
    <>
      <p>{faults.length} fields need correction:</p>
      <ul className="mt-1 list-disc pl-5">
        {faults.map(({ field, message }) => (
          <li key={`${field} ${message}`}>
            <button type="button" className="link text-left" onClick={() => onField(field)}>
              {message}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What is wrong with one act of a round, under the names that its fields have in the form: several may ask the same. */
function prefixed<T extends { field?: string; faults?: readonly Fault[] }>(
  answer: T,
  prefix: string | undefined,
  form: HTMLFormElement,
): T {
  if (prefix === undefined) return answer;
  const named = (field: string) => {
    const own = `${prefix}${field.split(".").at(-1)}`;
    return form.querySelector(`[name="${CSS.escape(own)}"], [data-field="${CSS.escape(own)}"]`) ? own : field;
  };
  return {
    ...answer,
    ...(answer.field === undefined ? {} : { field: named(answer.field) }),
    ...(answer.faults ? { faults: answer.faults.map((one) => ({ ...one, field: named(one.field) })) } : {}),
  };
}

/** The first field that nothing was written in, but for the PIN and a picture: what is signed later is whole now. */
function emptyField(form: HTMLFormElement): { name: string; label: string } | null {
  for (const field of form.querySelectorAll<HTMLInputElement | HTMLSelectElement>("input[name], select[name]")) {
    const isAsked = field.name !== "pin" && !["checkbox", "radio", "file", "hidden"].includes(field.type);
    if (isAsked && field.value.trim() === "")
      return { name: field.name, label: field.labels?.[0]?.textContent?.trim() ?? field.name };
  }
  return null;
}

function asInput(fields: FormData, lists: readonly string[]): Record<string, unknown> {
  const input: Record<string, unknown> = Object.fromEntries(fields);
  for (const name of lists) input[name] = fields.getAll(name);
  return input;
}

async function post(envelope: unknown): Promise<Answer> {
  try {
    const response = await fetchInTime(
      "/api/acts",
      {
        method: "POST",
        headers: { "content-type": "application/json", [PAGE_HEADER]: pageName() },
        body: JSON.stringify(envelope),
      },
      ANSWER_WITHIN_MS.act,
    );
    return (await response.json()) as Answer;
  } catch {
    return {
      ok: false,
      status: 0,
      code: "unreached",
      sentence:
        "The server did not answer. It may or may not have been done, and until it answers it protects nobody: press again, it will not be done twice.",
    };
  }
}

/** Marks the field that the server named and puts the cursor there. */
function markField(form: HTMLFormElement, field: string | undefined, describedBy: string): void {
  if (!field) return;
  const [base = "", ...rest] = field.split(".");
  const leaf = rest.at(-1) ?? base;
  const input = form.querySelector<HTMLElement>(
    `[name="${CSS.escape(field)}"], [name="${CSS.escape(base)}"], [name="${CSS.escape(leaf)}"], [data-field="${CSS.escape(base)}"]`,
  );
  input?.setAttribute("aria-invalid", "true");
  input?.setAttribute("aria-describedby", describedBy);
  input?.focus();
}
