import type { Page } from "@playwright/test";
import { Hand } from "./hand";
import { expect, openSite, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { fill, number, type Device } from "./stepHand";
import { read, stepsOf } from "./work";

/** A site of its own: others' work on the same machine would ask more. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4380 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

type As = (name: string) => Promise<Page>;

/**
 * Every step that this person may do now, one after the other, by one signature: all but the last are done and signed later,
 * unless one asks the server at that moment. Answers how many.
 */
async function roundOf(
  hand: Hand,
  page: Page,
  path: string,
  p: Readonly<{ mine: RegExp; last?: RegExp; given: (label: string) => Device }>,
): Promise<number> {
  await hand.open(page, path);
  const now = page.getByRole("region", { name: "Now", exact: true });
  let done = 0;
  const next = async () => {
    const labels = await page
      .locator('section[aria-label="Now"] form[aria-label]')
      .evaluateAll((all) =>
        all.flatMap((form) =>
          form.checkVisibility() && form.querySelector('[name="why"]') === null
            ? [form.getAttribute("aria-label")!]
            : [],
        ),
      );
    return labels.find((one) => p.mine.test(one));
  };
  for (;;) {
    await page.getByRole("heading", { name: /^(Isolation|Restoring) / }).waitFor();
    let label = await next();
    // The page may be looking just now: what is open comes a moment later.
    for (let looks = 0; label === undefined && looks < 4; looks++) {
      await page.waitForTimeout(400);
      label = await next();
    }
    if (label === undefined) break;
    const form = now.locator(`form[aria-label="${label}"]`).first();
    await fill(hand, form, p.given(label));
    const later = form.getByRole("button", { name: "Done, sign later" });
    done++;
    if ((await later.count()) > 0 && !p.last?.test(label)) await hand.later(form);
    else {
      await hand.send(page, form, `${label}, with what was done before`);
      await expect(form).toHaveCount(0);
    }
  }
  const round = page.getByRole("form", { name: "Sign the round" });
  if ((await round.count()) > 0) {
    await hand.send(page, round, `a round of ${done} steps`);
    await expect(round).toHaveCount(0);
  }
  await page.goto("about:blank");
  return done;
}

type Asked = Readonly<{ title: string; places: readonly string[] }>;
type Made = Readonly<{ job: string; isolation: string; box: string; permit: string }>;

/** The request, and at the desk its hazards, each with a verdict of its own, the plan and the permit that they require. */
async function planned(hand: Hand, as: As, site: Site, { title, places }: Asked): Promise<Made> {
  const maren = await as("Maren Tolve");
  // The window is offered, and can be changed.
  await hand.open(maren, "/jobs/new");
  await hand.type(maren.getByLabel("What is to be done"), title);
  await hand.type(maren.getByLabel("In more words"), "Off its feet, looked at, on again.");
  for (const [index, place] of places.entries()) {
    if (index > 0) await hand.tap(maren.getByRole("button", { name: "Another location" }));
    await hand.type(maren.getByLabel(`Work location ${index + 1}: tag, or tag.part`), place);
    await hand.tap(maren.getByRole("checkbox", { name: "touch it" }).nth(index));
  }
  await hand.tick(maren.getByRole("radio", { name: "No, off again within the shift" }));
  await hand.choose(maren.getByLabel("Permit holder, in charge of the party"), { label: "Petra Quillon" });
  await hand.tick(maren.getByRole("checkbox", { name: "Petra Quillon" }));
  await hand.tick(maren.getByRole("checkbox", { name: "Silas Wren" }));
  await hand.send(maren, maren.getByRole("form", { name: "New request" }), "request");
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  const job = /J-\d+/.exec(maren.url())![0];

  await hand.tap(maren.getByRole("link", { name: "Isolation points" }));
  await maren.getByText("Approve it with its permits").waitFor();
  const plan = await hand.reach(maren, "Approve the plan and write its permits");
  const hazards = await plan.getByRole("radio", { name: "Keep" }).all();
  expect(hazards.length).toBeGreaterThan(0);
  for (const keep of hazards) await hand.tick(keep);
  await hand.type(plan.getByLabel("Weather", { exact: true }), "Dry");
  await hand.type(plan.getByLabel("Insulating gloves, number"), "GL-11");
  await hand.tick(plan.getByRole("checkbox", { name: /they are checked/ }));
  await hand.send(maren, plan, `${hazards.length} hazards, plan, permit, check`);
  await expect(maren).toHaveURL(/\/permits\/P-\d+/);
  const permit = /P-\d+/.exec(maren.url())![0];
  const [made] = read<{ isolation: string; box: string }>(
    site,
    `SELECT i.number AS isolation, b.number AS box FROM isolations i JOIN job_isolations ji ON ji.isolation_id = i.id
     JOIN jobs j ON j.id = ji.job_id JOIN box_isolations bi ON bi.isolation_id = i.id JOIN lock_boxes b ON b.id = bi.box_id
     WHERE j.number = ?`,
    job,
  );
  await maren.goto("about:blank");
  return { job, permit, ...made! };
}

/** From the first lock on the box to restoring begun: issued on the spot, on, off, handed back, inspected, closed. */
async function atWork(hand: Hand, as: As, { job, permit, box }: Made, place: string): Promise<void> {
  const maren = await as("Maren Tolve");
  await hand.open(maren, `/boxes/${box}`);
  const hang = await hand.reach(maren, "Hang my lock on the box");
  await hand.type(hang.getByLabel("My lock number"), `C-${box}`);
  await hand.send(maren, hang, "first lock on the box");
  const idris = await as("Idris Halloway");
  await hand.open(idris, `/permits/${permit}`);
  const issue = await hand.reach(idris, "Issue on the spot");
  for (const look of await issue.getByRole("checkbox").all()) await hand.tick(look);
  await hand.type(issue.getByLabel("Where its copies hang, one a line"), "at the work");
  await hand.send(idris, issue, "authorise, look, issue");
  const signOn = async (name: string, form: string, lock: string) => {
    const page = await as(name);
    await hand.open(page, `/permits/${permit}`);
    const before = hand.taps;
    const on = await hand.reach(page, form);
    await hand.tick(on.getByRole("checkbox", { name: /I have read/ }));
    // In the demo's day she is at work already, and says so.
    const also = on.getByRole("checkbox", { name: /as well, at other work/ });
    if ((await also.count()) > 0) await hand.tick(also);
    await hand.choose(on.getByLabel("I will work at"), place);
    const own = on.getByRole("button", { name: `Put in ${lock}` });
    if ((await own.count()) > 0) await hand.tap(own);
    else await hand.type(on.getByLabel("My lock number"), lock);
    await hand.send(page, on, form);
    // A crew member is on with few touches and the keys of a PIN.
    expect(hand.taps - before).toBeLessThanOrEqual(7);
    return page;
  };
  const petra = await signOn("Petra Quillon", "Accept and sign on", "P-18");
  const silas = await signOn("Silas Wren", "Sign on", `S-${box}`);

  await hand.send(silas, await hand.reach(silas, "Sign off"), "sign off");
  await petra.reload();
  const back = await hand.reach(petra, "Sign off and hand back");
  for (const one of await back.getByRole("checkbox").all()) await hand.tick(one);
  await hand.tick(back.getByRole("radio", { name: "All of it" }));
  await hand.send(petra, back, "sign off, hand back");
  await hand.open(idris, `/permits/${permit}`);
  const close = await hand.reach(idris, "Inspect and close");
  await hand.type(close.getByLabel("What you found"), "Clean");
  await hand.send(idris, close, "inspect, close");

  await hand.open(maren, `/jobs/${job}/return`);
  const restoring = await hand.reach(maren, "Start restoring");
  await hand.tick(restoring.getByRole("checkbox", { name: /My lock .* is off/ }));
  await hand.send(maren, restoring, "lock off, restoring begun");
  for (const page of [maren, idris, petra, silas]) await page.goto("about:blank");
}

/** The plant watched and handed over, and the job closed by the same signature. */
async function handedOver(hand: Hand, as: As, job: string): Promise<void> {
  const maren = await as("Maren Tolve");
  await hand.open(maren, `/jobs/${job}/return`);
  const now = maren.getByRole("region", { name: "Now", exact: true });
  // Watched, and what kept people away taken down: signed with the handing over.
  for (const kind of ["watch", "take barriers away"]) {
    const forms = now.locator(`form[aria-label^="${kind} "]`);
    while ((await forms.count()) > 0) await hand.later(forms.first());
  }
  const over = now.locator('form[aria-label^="hand over "]');
  await number(hand, over, over.locator('input[name="words"]'), "Ruth Amberley");
  await hand.tick(over.getByRole("checkbox", { name: /close it/ }));
  await hand.send(maren, over, "hand over, close");
  await expect(maren.getByText("The job is closed and back in service.")).toBeVisible();
}

/** All of it, by who does what; answers what it cost. */
async function wholeJob(as: As, site: Site, asked: Asked, lockers: readonly string[]): Promise<Hand> {
  const hand = new Hand();
  const made = await planned(hand, as, site, asked);
  const { job, isolation } = made;
  const left = (phase: string) => stepsOf(site, isolation).filter((step) => step.phase === phase && !step.done);
  const plates = new Map(stepsOf(site, isolation).map(({ subject, plate }) => [subject, plate ?? ""]));
  const given = (label: string): Device => {
    const tag = /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "";
    return { lock: `L-${tag}`, plate: plates.get(tag) ?? "" };
  };
  // Told, stopped and locked by those of the trade; proved, tried and boxed by another.
  const LOCKS = /^(?!prove |verify |try start |close box )/;
  const ways = { path: `/jobs/${job}/walk`, back: `/jobs/${job}/return` };
  for (let turn = 0; left("isolate").length > 0 && turn < 4; turn++) {
    for (const who of lockers) {
      const mayDo = left("isolate").some(({ kind }) => LOCKS.test(`${kind} `));
      if (mayDo) await roundOf(hand, await as(who), ways.path, { mine: LOCKS, last: /^lock /, given });
    }
    await roundOf(hand, await as("Odalys Brenn"), ways.path, { mine: /./, last: /^close box /, given });
  }
  expect(left("isolate").map(({ kind, subject }) => `${kind} ${subject}`)).toEqual([]);
  await atWork(hand, as, made, asked.places[0]!);
  const OFF = /^(?!start |watch |take barriers away |hand over )/;
  const toDo = () => left("restore").filter(({ kind }) => OFF.test(`${kind} `));
  for (let turn = 0; toDo().length > 0 && turn < 4; turn++) {
    for (const who of [...lockers].reverse()) {
      if (toDo().length > 0) await roundOf(hand, await as(who), ways.back, { mine: OFF, given });
    }
  }
  await roundOf(hand, await as(lockers[0]!), ways.back, { mine: /^start /, given });
  await handedOver(hand, as, job);
  const cost = { acts: hand.acts, pins: hand.pins, fields: hand.fields, taps: hand.taps, keys: hand.keys };
  test.info().annotations.push({ type: "cost", description: JSON.stringify(cost) });
  console.log(asked.title, JSON.stringify(cost), hand.log.join("\n"));
  // Each thing signed has its row, and the record is whole.
  expect(site.lantern("verify").status).toBe(0);
  return hand;
}

test("one lock, two workers, from the request to back in service: what it costs by the screens", async ({
  as,
  site,
}) => {
  test.setTimeout(600_000);
  const hand = await wholeJob(as, site, { title: "Change the fan motor", places: ["M-292"] }, ["Jonas Ekeberg"]);
  expect(hand.acts).toBeLessThanOrEqual(15);
  expect(hand.pins).toBeLessThanOrEqual(14);
  expect(hand.fields).toBeLessThanOrEqual(20);
  expect(hand.taps).toBeLessThanOrEqual(90);
});

test("two points, two trades, hazards: what it costs by the screens", async ({ as, site }) => {
  test.setTimeout(600_000);
  const asked = { title: "Look at the fan motor and the spool", places: ["M-292", "SP-2352"] };
  const hand = await wholeJob(as, site, asked, ["Jonas Ekeberg", "Sunniva Rask"]);
  expect(hand.acts).toBeLessThanOrEqual(20);
  expect(hand.pins).toBeLessThanOrEqual(18);
  expect(hand.fields).toBeLessThanOrEqual(30);
});
