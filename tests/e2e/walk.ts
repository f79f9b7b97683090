import type { Locator, Page } from "@playwright/test";
import { expect, PIN } from "./site";

/** Plates of the demo that differ from the tag. */
export const PLATES: Readonly<Record<string, string>> = {
  "Q-207": "2.07",
  "Q-208": "2.08",
  "F-107": "2.07 F1",
  "F-208": "2.08 X4",
};

const SOUND: Readonly<Record<string, string>> = {
  tester: "VT-02",
  provingUnit: "PU-02",
  gloves: "GL-11",
  reading: "0",
  pressure_bar: "6",
  held_min: "15",
  lost_bar: "0",
  "earth 0": "PE-01",
  words: "As planned; repeated back",
};
const INSTRUMENTS: Readonly<Record<string, string>> = {
  "Pressure gauge number": "PG-04",
  "Thermometer number": "TH-02",
  "Survey meter number": "SM-01",
};

/** Fills whatever a step asks, as somebody who finds everything as it should be. The PIN is left to the caller. */
export async function fillStep(
  form: Locator,
  p: Readonly<{ tag: string; lock: string; people?: number; locks?: number }>,
): Promise<void> {
  const given: Readonly<Record<string, string>> = {
    ...SOUND,
    plate: PLATES[p.tag] ?? p.tag,
    lock: p.lock,
    locksCounted: String(p.locks ?? 0),
    peopleCounted: String(p.people ?? 0),
  };
  for (const input of await form.locator("input[name]").all()) {
    const name = (await input.getAttribute("name"))!;
    const type = await input.getAttribute("type");
    if (type === "checkbox") await input.check();
    else if (name.startsWith("readings ")) await input.fill("0");
    else if (name in given && type !== "file") await input.fill(given[name]!);
  }
  for (const [label, number] of Object.entries(INSTRUMENTS)) {
    const field = form.getByLabel(label, { exact: true });
    if ((await field.count()) > 0) await field.fill(number);
  }
}

/** The words of a list item, or of the refusal in its form: whichever comes first, so that a refusal fails at once. */
export async function expectDone(page: Page, item: string, form: Locator, who: string): Promise<void> {
  const done = page.getByRole("listitem", { name: item, exact: true }).getByText("Done", { exact: true });
  const refused = form.getByRole("alert").filter({ hasText: /\S/ });
  await expect(done.or(refused).first(), `${item} by ${who}`).toBeVisible();
  if ((await done.count()) === 0) expect(await refused.innerText(), `${item} by ${who}`).toBe("");
}

const MINE: Readonly<Record<string, RegExp>> = {
  "Odalys Brenn": /^(prove|verify) /,
  "Ruth Amberley": /^accept losses /,
};

/**
 * Walks every step through the screens. Ruth signs for what else stops; Sunniva does what is mechanical and process, Jonas what is electrical; Odalys
 * looks a second time and proves, for nobody proves what they locked themselves. Each goes on while there is a step.
 */
export async function walk(
  as: (name: string) => Promise<Page>,
  job: string,
  stage: "walk" | "return",
  people = 0,
): Promise<void> {
  let lock = 0;
  for (let round = 0; round < 12; round++) {
    let did = 0;
    for (const who of ["Jonas Ekeberg", "Ruth Amberley", "Sunniva Rask", "Odalys Brenn"]) {
      if (who === "Ruth Amberley" && (stage === "return" || round > 0)) continue;
      const page = await as(who);
      await page.goto(`/jobs/${job}/${stage}`);
      const steps = page.getByRole("listitem", { name: /^Step \d+: / });
      const mine = steps
        .getByRole("form")
        .filter({ hasNot: page.locator('[name="why"]') })
        .and(page.getByRole("form", { name: MINE[who] ?? /^(?!prove |verify |accept losses |cannot|swap)/i }));
      await expect(page.getByRole("heading", { name: /^(Isolation|Return of) / })).toBeVisible();
      while ((await mine.count()) > 0) {
        const form = mine.first();
        const label = (await form.getAttribute("aria-label"))!;
        const item = steps.filter({ has: page.getByRole("form", { name: label, exact: true }) });
        const name = (await item.first().getAttribute("aria-label"))!;
        const tag = /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "";
        await fillStep(form, { tag, lock: `L-${job.slice(-2)}-${++lock}`, people });
        await form.getByLabel("Your PIN").fill(PIN);
        await form
          .getByRole("button", { name: /^(?!Another earth|A (live|proving))/ })
          .last()
          .click();
        await expectDone(page, name, form, who);
        did++;
        // She signs one list; its form goes a moment after it is said to be done.
        if (who === "Ruth Amberley") break;
      }
      // An open page follows every act of the others: one that nobody looks at need not be drawn.
      await page.goto("about:blank");
    }
    if (did === 0) return;
  }
  throw new Error("the walk does not end");
}
