import type { Locator, Page } from "@playwright/test";
import { Hand } from "./hand";
import { expect, openSite, SITE_TIMEOUT_MS, test as shared, type Site } from "./site";
import { read, stepsOf } from "./work";

/** A site of its own: others' work on the same machine would ask more. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4380 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

/** The lock that is hung, and what the plate of its device says to whoever stands before it. */
type Device = Readonly<{ lock: string; plate: string }>;
const NONE: Device = { lock: "", plate: "" };

/** What a step asks, as somebody finds it who finds everything as it should be. */
async function fill(hand: Hand, form: Locator, { lock, plate }: Device, people: number): Promise<void> {
  const given: Readonly<Record<string, string>> = {
    plate,
    lock,
    tester: "VT-02",
    provingUnit: "PU-02",
    words: "Control room, by radio",
    locksCounted: "0",
    peopleCounted: String(people),
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
    else if (name.startsWith("readings "))
      await hand.tap(form.getByRole("button", { name: `${name.slice("readings ".length)} shows 0 V`, exact: true }));
    else if (given[name] !== undefined) await hand.type(input, given[name]);
    else throw new Error(`the form asks ${name}, and nobody knows what to say`);
  }
}

/** The steps that this person may do now, one after the other: all but the last done and signed later, the last with its PIN. */
async function steps(hand: Hand, page: Page, path: string, kinds: readonly string[], device = NONE): Promise<void> {
  await hand.open(page, path);
  const now = page.getByRole("region", { name: "Now", exact: true });
  for (const [index, kind] of kinds.entries()) {
    const form = now.locator(`form[aria-label^="${kind} "]`).first();
    await form.waitFor();
    await fill(hand, form, device, 2);
    if (index < kinds.length - 1) {
      const label = await form.getAttribute("aria-label");
      await hand.later(now.locator(`form[aria-label="${label}"]`));
    } else await hand.send(page, form, kinds.join(", "));
  }
}

test("one lock, two workers, from the request to back in service: what it costs by the screens", async ({
  as,
  site,
}) => {
  test.setTimeout(600_000);
  const hand = new Hand();
  const maren = await as("Maren Tolve");

  // The request: the window is offered, and can be changed.
  await hand.open(maren, "/jobs/new");
  const ask = maren.getByRole("form", { name: "New request" });
  await hand.type(maren.getByLabel("What is to be done"), "Change the fan motor");
  await hand.type(maren.getByLabel("In more words"), "Motor off its feet, another on.");
  await hand.type(maren.getByLabel("Work location 1: tag, or tag.part"), "M-292");
  await hand.tap(maren.getByRole("checkbox", { name: "open it" }));
  await hand.tap(maren.getByRole("checkbox", { name: "touch it" }));
  await hand.choose(maren.getByLabel("Permit holder, in charge of the party"), { label: "Petra Quillon" });
  await hand.tick(maren.getByRole("checkbox", { name: "Petra Quillon" }));
  await hand.tick(maren.getByRole("checkbox", { name: "Silas Wren" }));
  await hand.send(maren, ask, "request");
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  const job = /J-\d+/.exec(maren.url())![0];

  // At the desk: hazards, each with a verdict of its own, the plan and the permit that they require.
  await hand.tap(maren.getByRole("link", { name: "Isolation points" }));
  await maren.getByText("Approve it with its permits").waitFor();
  const plan = await hand.reach(maren, "Approve the plan and write its permits");
  for (const keep of await plan.getByRole("radio", { name: "Keep" }).all()) await hand.tick(keep);
  await hand.type(plan.getByLabel("Weather", { exact: true }), "Indoors");
  // Nothing was proposed here that would stand there already.
  if ((await plan.getByLabel("Hazards that remain").inputValue()) === "") {
    await hand.type(plan.getByLabel("Hazards that remain"), "Weight of the motor; nip of the belt.");
    await hand.type(plan.getByLabel("Precautions"), "Two people lift; belt off first.");
  }
  await hand.type(plan.getByLabel("Insulating gloves, number"), "GL-11");
  await hand.tick(plan.getByRole("checkbox", { name: /they are checked/ }));
  await hand.send(maren, plan, "hazards, plan, permit, check");
  await expect(maren).toHaveURL(/\/permits\/P-\d+/);
  const permit = /P-\d+/.exec(maren.url())![0];
  const [{ isolation, box }] = read<{ isolation: string; box: string }>(
    site,
    `SELECT i.number AS isolation, b.number AS box FROM isolations i JOIN job_isolations ji ON ji.isolation_id = i.id
     JOIN jobs j ON j.id = ji.job_id JOIN box_isolations bi ON bi.isolation_id = i.id JOIN lock_boxes b ON b.id = bi.box_id
     WHERE j.number = ?`,
    job,
  ) as [{ isolation: string; box: string }];
  const locks = stepsOf(site, isolation).filter(({ kind }) => kind === "lock");
  expect(locks).toHaveLength(1);
  const device = { lock: "L-2920", plate: locks[0]!.plate ?? "" };
  await maren.goto("about:blank");

  // Told, stopped and locked by one; proved, tried and boxed by another.
  const jonas = await as("Jonas Ekeberg");
  await steps(hand, jonas, `/jobs/${job}/walk`, ["tell", "stop", "lock"], device);
  const odalys = await as("Odalys Brenn");
  await steps(hand, odalys, `/jobs/${job}/walk`, ["prove", "prove", "try start", "close box"]);

  // At the box and at the work.
  await hand.open(maren, `/boxes/${box}`);
  const hang = await hand.reach(maren, "Hang my lock on the box");
  await hand.type(hang.getByLabel("My lock number"), "C-77");
  await hand.send(maren, hang, "first lock on the box");
  const idris = await as("Idris Halloway");
  await hand.open(idris, `/permits/${permit}`);
  const issue = await hand.reach(idris, "Issue on the spot");
  for (const look of await issue.getByRole("checkbox").all()) await hand.tick(look);
  await hand.type(issue.getByLabel("Where its copies hang, one a line"), "at the fan");
  await hand.send(idris, issue, "authorise, look, issue");
  const signOn = async (name: string, form: string, lock: string) => {
    const page = await as(name);
    await hand.open(page, `/permits/${permit}`);
    const on = await hand.reach(page, form);
    await hand.tick(on.getByRole("checkbox", { name: /I have read/ }));
    // In the demo's day she is at work already, and says so.
    const also = on.getByRole("checkbox", { name: /as well, at other work/ });
    if ((await also.count()) > 0) await hand.tick(also);
    await hand.choose(on.getByLabel("I will work at"), "M-292");
    const own = on.getByRole("button", { name: `Put in ${lock}` });
    if ((await own.count()) > 0) await hand.tap(own);
    else await hand.type(on.getByLabel("My lock number"), lock);
    await hand.send(page, on, form);
    return page;
  };
  const petra = await signOn("Petra Quillon", "Accept and sign on", "P-18");
  const silas = await signOn("Silas Wren", "Sign on", "S-412");

  // Off, handed back, closed.
  await hand.send(silas, await hand.reach(silas, "Sign off"), "sign off");
  await petra.reload();
  const back = await hand.reach(petra, "Sign off and hand back");
  for (const one of await back.getByRole("checkbox").all()) await hand.tick(one);
  await hand.send(petra, back, "sign off, hand back");
  await hand.open(idris, `/permits/${permit}`);
  const close = await hand.reach(idris, "Inspect and close");
  await hand.type(close.getByLabel("What you found"), "Clean");
  await hand.send(idris, close, "inspect, close");

  // Back in service.
  await hand.open(maren, `/jobs/${job}/return`);
  const restoring = await hand.reach(maren, "Start restoring");
  await hand.tick(restoring.getByRole("checkbox", { name: /My lock C-77 is off/ }));
  await hand.send(maren, restoring, "lock off, restoring begun");
  await maren.goto("about:blank");
  await steps(
    hand,
    jonas,
    `/jobs/${job}/return`,
    ["clear", "count people", "guards", "walk line", "tell all", "unlock"],
    device,
  );
  await steps(hand, jonas, `/jobs/${job}/return`, ["start"]);
  await hand.open(maren, `/jobs/${job}/return`);
  const now = maren.getByRole("region", { name: "Now", exact: true });
  await hand.later(now.locator('form[aria-label^="watch "]'));
  const over = now.locator('form[aria-label^="hand over "]');
  await hand.type(over.locator('input[name="words"]'), "Ruth Amberley");
  await hand.tick(over.getByRole("checkbox", { name: /close it/ }));
  await hand.send(maren, over, "hand over, close");
  await expect(maren.getByText("The job is closed and back in service.")).toBeVisible();

  test.info().annotations.push({ type: "cost", description: JSON.stringify({ ...hand }) });
  console.log(
    JSON.stringify({ acts: hand.acts, pins: hand.pins, fields: hand.fields, taps: hand.taps, keys: hand.keys }),
    hand.log,
  );
  expect(hand.acts).toBeLessThanOrEqual(15);
  expect(hand.pins).toBeLessThanOrEqual(14);
  expect(hand.fields).toBeLessThanOrEqual(20);
  expect(hand.taps).toBeLessThanOrEqual(90);
  // Each thing signed has its row, and the record is whole.
  expect(site.lantern("verify").status).toBe(0);
});
