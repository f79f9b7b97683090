import { get, set } from "idb-keyval";

/** An act that a device keeps because it had no network: what, whose, and when by its own clock. Never the PIN. */
export type KeptAct = Readonly<{
  actId: string;
  type: string;
  input: Readonly<Record<string, unknown>>;
  doneAt_ms: number;
  /** Whose it is: only they can send it, for it takes their PIN. */
  personId: string;
  personName: string;
  /** What it was, in words, and where it belongs. */
  label: string;
  page: string;
  /** A picture that goes first; its id then joins the input. */
  photo: Blob | null;
  /** What the server said when it no longer fitted. */
  refusal: Readonly<{ sentence: string; code: string; settles: boolean }> | null;
}>;

const KEY = "heavy-lantern-kept-acts";
const listeners = new Set<() => void>();
let known: readonly KeptAct[] = [];
let loaded: Promise<void> | null = null;

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
  void load();
  return () => listeners.delete(listener);
}

function load(): Promise<void> {
  loaded ??= get<KeptAct[]>(KEY).then((stored) => {
    known = stored ?? [];
    listeners.forEach((tell) => tell());
  });
  return loaded;
}

async function change(next: (now: readonly KeptAct[]) => readonly KeptAct[]): Promise<void> {
  await load();
  const changed = next(known);
  // On disk before it is shown: what a person was told is kept must be there after a restart.
  await set(KEY, changed);
  known = changed;
  listeners.forEach((tell) => tell());
}

export function keep(act: KeptAct): Promise<void> {
  return change((now) => [...now.filter((one) => one.actId !== act.actId), act]);
}

export function forget(actId: string): Promise<void> {
  return change((now) => now.filter((one) => one.actId !== actId));
}

export type Sent = "done" | "refused" | "wrong pin" | "no network" | "signed out";

/** Sends one kept act with its own id and time; a repeat is answered and not done twice. */
export async function send(act: KeptAct, pin: string): Promise<Readonly<{ how: Sent; sentence: string }>> {
  let current = act;
  if (current.photo) {
    const photo = await upload(current.photo);
    if (photo.how !== "done") return photo;
    current = { ...current, input: { ...current.input, photo: photo.sentence }, photo: null };
    await keep(current);
  }
  let response: Response;
  try {
    response = await fetch("/api/acts", {
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
    });
  } catch {
    return { how: "no network", sentence: "The network is still away. Everything stays kept here." };
  }
  const answer = (await response.json()) as { ok: boolean; sentence?: string; code?: string };
  if (answer.ok) {
    await forget(current.actId);
    return { how: "done", sentence: "" };
  }
  const sentence = answer.sentence ?? "The server refused it.";
  if (response.status === 401) return { how: "signed out", sentence };
  if (response.status === 403 && (answer.code === "wrong pin" || answer.code === "pin missing")) {
    return { how: "wrong pin", sentence };
  }
  await keep({ ...current, refusal: { sentence, code: answer.code ?? "", settles: response.status === 409 } });
  return { how: "refused", sentence };
}

/** Stores a picture; the sentence is its id when that was done. */
export async function upload(photo: Blob): Promise<Readonly<{ how: Sent; sentence: string }>> {
  try {
    const response = await fetch("/api/photos", { method: "POST", body: photo });
    const answer = (await response.json()) as { ok: boolean; id?: string; sentence?: string };
    return answer.ok
      ? { how: "done", sentence: answer.id! }
      : { how: response.status === 401 ? "signed out" : "refused", sentence: answer.sentence ?? "" };
  } catch {
    return { how: "no network", sentence: "The network is still away. Everything stays kept here." };
  }
}
