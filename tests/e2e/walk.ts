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
  // Asked once: a walk fills some hundreds of fields, and each question to a long page costs a look through all of it.
  const inputs = await form
    .locator("input[name]")
    .evaluateAll((all) => all.map((one) => ({ name: one.getAttribute("name")!, type: one.getAttribute("type") })));
  for (const [index, { name, type }] of inputs.entries()) {
    const earlier = inputs.slice(0, index).filter((one) => one.name === name).length;
    const input = form.locator(`input[name="${name}"]`).nth(earlier);
    // All is as it should be: it did not start.
    if (name === "started") continue;
    if (type === "checkbox") await input.check();
    else if (name.startsWith("readings ")) await input.fill("0");
    else if (name in given && type !== "file") await input.fill(given[name]!);
  }
  // At the work first, then at each way in.
  for (const place of await form.locator('select[name^="earth place"]').all()) {
    if ((await place.inputValue()) === "") await place.selectOption({ index: 1 });
  }
  const labels = await form.locator("label").allInnerTexts();
  for (const [label, number] of Object.entries(INSTRUMENTS)) {
    if (labels.some((text) => text.includes(label))) await form.getByLabel(label, { exact: true }).fill(number);
  }
}

/** The words of a list item, or of the refusal in its form: whichever comes first, so that a refusal fails at once. */
export async function expectDone(page: Page, item: string, form: Locator, who: string): Promise<void> {
  const done = page.locator(`li[aria-label="${item}"]`).getByText("Done", { exact: true });
  const refused = form.locator('[role="alert"]').filter({ hasText: /\S/ });
  await expect(done.or(refused).first(), `${item} by ${who}`).toBeVisible();
  if ((await done.count()) === 0) expect(await refused.innerText(), `${item} by ${who}`).toBe("");
}

const MINE: Readonly<Record<string, RegExp>> = {
  "Odalys Brenn": /^(prove|verify) /,
  "Ruth Amberley": /^accept losses /,
};
const OTHERS = /^(?!prove |verify |accept losses |cannot|swap)/i;

/** The first step on the page that this person does: the names of its row and of its form. */
async function nextOf(page: Page, who: string): Promise<{ item: string; label: string } | null> {
  const forms = await page.locator('li[aria-label^="Step "] form[aria-label]').evaluateAll((all) =>
    all.flatMap((form) => {
      const item = form.closest("li")?.getAttribute("aria-label");
      const label = form.getAttribute("aria-label");
      const seen = form.checkVisibility() && form.querySelector('[name="why"]') === null;
      return item && label && seen ? [{ item, label }] : [];
    }),
  );
  return forms.find(({ label }) => (MINE[who] ?? OTHERS).test(label)) ?? null;
}

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
      await expect(page.getByRole("heading", { name: /^(Isolation|Restoring) / })).toBeVisible();
      for (let next = await nextOf(page, who); next !== null; next = await nextOf(page, who)) {
        const { label, item } = next;
        const form = page.locator(`li[aria-label="${item}"] form[aria-label="${label}"]`);
        const tag = /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "";
        await fillStep(form, { tag, lock: `L-${job.slice(-2)}-${++lock}`, people });
        await form.getByLabel("Your PIN").fill(PIN);
        await form.locator('button[type="submit"]').click();
        await expectDone(page, item, form, who);
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
