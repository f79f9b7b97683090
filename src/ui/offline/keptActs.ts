import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import type { KeptAct } from "./keptAct";
import { addKept, allKept, changeKept, removeKept } from "./keptStore";

const listeners = new Set<() => void>();
let known: readonly KeptAct[] = [];

/** Steps that were just sent and taken, by isolation and step, until the page has fetched what is so now. */
let sent: ReadonlySet<string> = new Set();

export function sentSteps(): ReadonlySet<string> {
  return sent;
}
const NO_STEPS: ReadonlySet<string> = new Set();
export const noneSent = (): ReadonlySet<string> => NO_STEPS;
export const stepKey = (isolation: unknown, step: unknown) => `${String(isolation)} ${String(step)}`;

/** These are shown as done by now. What was sent and is not among them may come with the next look. */
export function fetched(done: readonly string[]): void {
  const left = [...sent].filter((key) => !done.includes(key));
  if (left.length === sent.size) return;
  sent = new Set(left);
  listeners.forEach((tell) => tell());
}

/** By then the page has looked, or the step is open again for a reason of its own. */
const LOOKED_WITHIN_MS = 15_000;

function remember(key: string): void {
  sent = new Set([...sent, key]);
  setTimeout(() => fetched([key]), LOOKED_WITHIN_MS);
}

/** Other pages of this browser are told, so that each shows what is kept, whoever kept it. */
const pages = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("heavy-lantern-kept");
pages?.addEventListener("message", () => void look());

/** What this device keeps, for `useSyncExternalStore`. */
export function keptActs(): readonly KeptAct[] {
  return known;
}

const NONE: readonly KeptAct[] = [];
export function noneOnServer(): readonly KeptAct[] {
  return NONE;
}

export function onKeptActs(listener: () => void): () => void {
  listeners.add(listener);
  void look();
  return () => listeners.delete(listener);
}

async function look(): Promise<void> {
  known = await allKept();
  listeners.forEach((tell) => tell());
}

async function changed(): Promise<void> {
  await look();
  pages?.postMessage("changed");
}

export async function keep(act: KeptAct): Promise<void> {
  await addKept(act);
  await changed();
}

export async function forget(actId: string): Promise<void> {
  await removeKept(actId);
  await changed();
}

async function amend(actId: string, change: (act: KeptAct) => KeptAct): Promise<void> {
  await changeKept(actId, change);
  await changed();
}

export type Sent = "done" | "refused" | "wrong pin" | "no network" | "signed out";

const AWAY = { how: "no network", sentence: "The network is still away. Everything stays kept here." } as const;

/** Sends one kept act with its own id and time; a repeat is answered and not done twice. */
export async function send(act: KeptAct, pin: string): Promise<Readonly<{ how: Sent; sentence: string }>> {
  let current = act;
  if (current.photo) {
    const photo = await upload(current.photo);
    if (photo.how !== "done") return photo;
    current = { ...current, input: { ...current.input, photo: photo.sentence }, photo: null };
    await amend(current.actId, () => current);
  }
  let status: number;
  let answer: { ok: boolean; sentence?: string; code?: string; answer?: { failed?: string } };
  try {
    const response = await fetchInTime(
      "/api/acts",
      {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          version: 1,
          actId: current.actId,
          type: current.type,
          input: current.input,
          doneAt_ms: current.doneAt_ms,
          pin,
        }),
      },
      ANSWER_WITHIN_MS.act,
    );
    status = response.status;
    answer = (await response.json()) as typeof answer;
  } catch {
    return AWAY;
  }
  if (answer.ok) {
    // A proof that failed was taken too: its step stays open, and says so.
    const isDone = current.type === "step.do" && answer.answer?.failed === undefined;
    if (isDone) remember(stepKey(current.input.isolation, current.input.step));
    await forget(current.actId);
    return { how: "done", sentence: "" };
  }
  const sentence = answer.sentence ?? "The server refused it.";
  if (status === 401) return { how: "signed out", sentence };
  if (status === 403 && (answer.code === "wrong pin" || answer.code === "pin missing")) {
    return { how: "wrong pin", sentence };
  }
  const refusal = { sentence, code: answer.code ?? "", settles: status === 409 };
  await amend(current.actId, (one) => ({ ...one, refusal }));
  return { how: "refused", sentence };
}

/** Sends kept acts one after the other with one PIN; the sentence of what hindered it, null where all arrived. */
export async function sendAll(acts: readonly KeptAct[], pin: string): Promise<string | null> {
  let refused: string | null = null;
  for (const act of acts) {
    const { how, sentence } = await send(act, pin);
    // What is refused stays kept beside what is there; the others are not held up by it.
    if (how === "refused") refused ??= `${act.label}: ${sentence}`;
    else if (how !== "done") return sentence;
  }
  return refused;
}

/** Stores a picture; the sentence is its id when that was done. */
export async function upload(photo: Blob): Promise<Readonly<{ how: Sent; sentence: string }>> {
  try {
    const response = await fetchInTime("/api/photos", { method: "POST", body: photo }, ANSWER_WITHIN_MS.photo);
    const answer = (await response.json()) as { ok: boolean; id?: string; sentence?: string };
    return answer.ok
      ? { how: "done", sentence: answer.id! }
      : { how: response.status === 401 ? "signed out" : "refused", sentence: answer.sentence ?? "" };
  } catch {
    return AWAY;
  }
}
