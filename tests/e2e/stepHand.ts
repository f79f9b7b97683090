import type { Locator } from "@playwright/test";
import type { Hand } from "./hand";

const PEOPLE_ON = 2;

/** The lock that is hung, and what the plate of its device says to whoever stands before it. */
export type Device = Readonly<{ lock: string; plate: string }>;

/** What this device used last by a touch, else typed. */
export async function number(hand: Hand, form: Locator, input: Locator, text: string): Promise<void> {
  const last = form.getByRole("button", { name: `Put in ${text}` });
  if ((await last.count()) > 0) await hand.tap(last.first());
  else await hand.type(input, text);
}

/** What a step asks, as somebody finds it who finds everything as it should be. */
export async function fill(hand: Hand, form: Locator, { lock, plate }: Device): Promise<void> {
  const given: Readonly<Record<string, string>> = {
    plate,
    lock,
    words: "Control room, by radio",
    locksCounted: "0",
    peopleCounted: String(PEOPLE_ON),
    reading: "0",
  };
  const inputs = await form
    .locator("input[name]")
    .evaluateAll((all) => all.map((one) => ({ name: one.getAttribute("name")!, type: one.getAttribute("type") })));
  for (const [index, { name, type }] of inputs.entries()) {
    const earlier = inputs.slice(0, index).filter((one) => one.name === name).length;
    const input = form.locator(`input[name="${name}"]`).nth(earlier);
    if (name === "started" || name === "closes" || name === "pin" || type === "file") continue;
    if (type === "checkbox") await hand.tick(input);
    else if (name.startsWith("readings ")) {
      await hand.tap(form.getByRole("button", { name: `${name.slice("readings ".length)} shows 0 V`, exact: true }));
    } else if (name === "tester") await number(hand, form, input, "VT-02");
    else if (name === "provingUnit") await number(hand, form, input, "PU-02");
    else if (name === "instrument") {
      const label = await input.evaluate((one) => (one as HTMLInputElement).labels?.[0]?.textContent ?? "");
      await number(hand, form, input, /ressure/.test(label) ? "PG-04" : "TH-02");
    } else if (name === "words") await number(hand, form, input, given.words!);
    else if (given[name] !== undefined) await hand.type(input, given[name]);
    else throw new Error(`the form asks ${name}, and nobody knows what to say`);
  }
}
