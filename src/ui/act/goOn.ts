"use client";

/** Where the next thing stands for whoever has just done something: a list's "Now", a sheet's "Next, for you". */
export const NEXT = "data-next";

const WITHIN_MS = 4000;
const LOOK_EVERY_MS = 60;

/**
 * After an act: the hand goes on with what is next. Waits until the page has it, puts the cursor into its first field and
 * says so to whoever cannot see it. Does nothing where the page has no next thing, or somebody has gone elsewhere meanwhile.
 */
export function goOn(from: HTMLFormElement | null): void {
  const was = nextForm()?.getAttribute("aria-label") ?? null;
  const began = Date.now();
  const look = () => {
    if (Date.now() - began > WITHIN_MS) return;
    const form = nextForm();
    const isChanged = !from?.isConnected || (form?.getAttribute("aria-label") ?? null) !== was;
    if (!isChanged) return void setTimeout(look, LOOK_EVERY_MS);
    const active = document.activeElement;
    const isElsewhere = active !== null && active !== document.body && active.closest("form") !== from;
    if (form === null || isElsewhere) return;
    const field = [...form.querySelectorAll<HTMLElement>("input, select, textarea")].find(
      (one) => one.checkVisibility() && one.getAttribute("type") !== "file",
    );
    field?.focus();
    say(`Done. Next: ${form.getAttribute("aria-label") ?? ""}`);
  };
  setTimeout(look, LOOK_EVERY_MS);
}

function nextForm(): HTMLFormElement | null {
  const forms = document.querySelectorAll<HTMLFormElement>(`[${NEXT}] form[aria-label]`);
  return [...forms].find((form) => form.checkVisibility()) ?? null;
}

function say(words: string): void {
  let region = document.getElementById("said");
  if (region === null) {
    region = document.createElement("div");
    region.id = "said";
    region.setAttribute("role", "status");
    region.className = "sr-only";
    document.body.append(region);
  }
  region.textContent = words;
}
