import type { Locator, Page, Request, Response } from "@playwright/test";
import { expect, PIN } from "./site";
import { reach } from "./site";

/** What it costs to do something by the screens: every touch, every field typed, every PIN, every time something is sent. */
export class Hand {
  taps = 0;
  fields = 0;
  pins = 0;
  acts = 0;
  /** Tab to the next field, Enter after the PIN. */
  keys = 0;
  /** What was sent, in order, for whoever reads a count that has grown. */
  readonly log: string[] = [];

  /** Opens a page: one touch, as of a link or a code on a tag. */
  async open(page: Page, path: string): Promise<void> {
    this.taps++;
    await page.goto(path);
  }

  async tap(target: Locator): Promise<void> {
    this.taps++;
    await target.click();
  }

  async tick(target: Locator): Promise<void> {
    this.taps++;
    await target.check();
  }

  /** A list opened, an entry touched. */
  async choose(target: Locator, what: string | { label: string }): Promise<void> {
    this.taps += 2;
    await target.selectOption(what);
  }

  /** The field touched, unless the cursor is there already or a key leads there from the field before; then typed. */
  async type(target: Locator, text: string): Promise<void> {
    await this.touch(target);
    this.fields++;
    await target.fill(text);
  }

  private async touch(target: Locator): Promise<void> {
    const isThere = () => target.evaluate((one) => one === document.activeElement);
    if (await isThere()) return;
    const isTyping = await target.evaluate(() =>
      document.activeElement?.matches("input:not([type=checkbox]), textarea"),
    );
    if (isTyping) {
      this.keys++;
      await target.page().keyboard.press("Tab");
      if (await isThere()) return;
      this.keys--;
    }
    this.taps++;
    await target.focus();
  }

  /** A form that lies in a drawer is reached by a touch. */
  async reach(page: Page, form: string): Promise<Locator> {
    const target = page.getByRole("form", { name: form, exact: true });
    await page.locator(`form[aria-label="${form}"]`).first().waitFor({ state: "attached" });
    if (!(await target.first().isVisible())) {
      this.taps++;
      await reach(page, form);
    }
    return target;
  }

  /** The PIN field touched and typed, where the form has one; then sent. It must be taken. */
  async send(page: Page, form: Locator, name: string): Promise<void> {
    // A key does not wait for the page as a touch does.
    await expect(form.locator('button[type="submit"]')).toBeEnabled();
    const pin = form.getByLabel("Your PIN");
    const hasPin = (await pin.count()) > 0;
    if (hasPin) {
      await this.touch(pin);
      this.pins++;
      // Typed and sent by the same keys.
      this.keys++;
      await pin.fill(PIN);
    } else this.taps++;
    this.acts++;
    this.log.push(`${name}: ${this.taps} taps, ${this.fields} fields so far`);
    type Answer = { ok: boolean; sentence?: string };
    const answers: Promise<Answer>[] = [];
    let waiting = 0;
    const isAct = (url: string) => url.endsWith("/api/acts");
    const asked = (request: Request) => void (isAct(request.url()) && waiting++);
    const hear = (response: Response) => {
      if (!isAct(response.url())) return;
      waiting--;
      answers.push(response.json() as Promise<Answer>);
    };
    page.on("request", asked);
    page.on("response", hear);
    if (hasPin) await pin.press("Enter");
    else await form.locator('button[type="submit"]').click();
    // What was done before is signed by the same PIN, each sent for itself, one after the other.
    for (let heard = -1; answers.length === 0 || waiting > 0 || heard !== answers.length;) {
      heard = answers.length;
      await page.waitForTimeout(250);
    }
    for (const answer of await Promise.all(answers)) {
      expect(answer, `${name}: ${answer.sentence}`).toMatchObject({ ok: true });
    }
    page.off("request", asked);
    page.off("response", hear);
  }

  /** Done now, signed later, on a round. */
  async later(form: Locator): Promise<void> {
    this.taps++;
    await form.getByRole("button", { name: "Done, sign later" }).click();
    await expect(form).toHaveCount(0);
  }
}
