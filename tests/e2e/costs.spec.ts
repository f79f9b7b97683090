import { Hand } from "./hand";
import { HOUR_MS, MINUTE_MS, moving } from "./moving";
import { expect, PIN } from "./site";
import { approvedJob, done, idOf } from "./work";

const test = moving();

/** What single acts cost by the screens: these fail when they grow. */

test("a signed gas test on a phone: at most 12 taps and 2 fields, and the instrument is the one in the hand", async ({
  as,
  clock,
}) => {
  const nils = await as("Nils Harrow");
  await nils.setViewportSize({ width: 390, height: 844 });
  const hand = new Hand();
  await hand.open(nils, "/permits/P-0002");
  const begin = await hand.reach(nils, "Begin a sample");
  // Nobody chose it beforehand.
  await expect(begin.getByLabel("Instrument")).toHaveValue("");
  await hand.tap(begin.getByRole("button", { name: "Put in GI-03" }));
  await hand.send(nils, begin, "begin the sample");
  await clock.on(2 * MINUTE_MS);
  const reading = await hand.reach(nils, "Read the air");
  await hand.type(reading.getByLabel("Oxygen, %"), "20.9");
  await hand.type(reading.getByLabel("Flammable, % of the lower limit"), "0");
  await hand.send(nils, reading, "read the air");
  expect({ fields: hand.fields, pins: hand.pins }).toEqual({ fields: 2, pins: 1 });
  expect(hand.taps).toBeLessThanOrEqual(12);
});

test("one of a crew signs on at their own phone: at most 7 taps and 5 digits, and the place is chosen by who was briefed", async ({
  as,
  site,
}) => {
  const maren = await as("Maren Tolve");
  const [mika, ...there] = [idOf(site, "Mika Thorne"), idOf(site, "Petra Quillon"), idOf(site, "Tomas Veyron")];
  await done(maren, "job.crew", { job: "J-0001", crew: [...there, mika] });
  await done(maren, "gear.enter", { kind: "lock", number: "H-777", owner: mika });
  const phone = await as("Mika Thorne");
  await phone.setViewportSize({ width: 390, height: 844 });
  const hand = new Hand();
  await hand.open(phone, "/permits/P-0001");
  const form = await hand.reach(phone, "Sign on");
  // Nothing that answers for them stands there beforehand.
  await expect(form.getByRole("checkbox", { name: /I have read/ })).not.toBeChecked();
  await expect(form.getByLabel("I will work at")).toHaveValue("");
  await expect(form.getByLabel("My lock number")).toHaveValue("");
  await hand.tick(form.getByRole("checkbox", { name: /I have read/ }));
  await hand.choose(form.getByLabel("I will work at"), "CY-260");
  await hand.tap(form.getByRole("button", { name: "Put in H-777" }));
  await hand.send(phone, form, "sign on");
  await expect(phone.getByText("H-777").first()).toBeVisible();
  expect({ fields: hand.fields, pins: hand.pins }).toEqual({ fields: 0, pins: 1 });
  expect(PIN.length).toBeLessThanOrEqual(5);
  expect(hand.taps).toBeLessThanOrEqual(7);
  test.info().annotations.push({ type: "taps", description: String(hand.taps) });
  // Others go on with this site.
  await done(phone, "permit.sign-off", { permit: "P-0001" });
});

test("an entry permit is written with at most 10 fields typed, and what is taken beforehand is the worse", async ({
  as,
  site,
  clock,
}) => {
  test.setTimeout(300_000);
  const { job } = await approvedJob(as, site, {
    title: "Look at the wall of the day tank",
    face: { place: "T-235", how: ["enter"] },
    lead: "Bram Ostler",
    crew: ["Bram Ostler", "Mika Thorne"],
  });
  const bram = await as("Bram Ostler");
  const hand = new Hand();
  await hand.open(bram, `/jobs/${job}/permits`);
  const write = await hand.reach(bram, "Write the permits required");
  // What is taken beforehand is the worse.
  for (const name of ["badAir", "engulfing", "trapping", "otherHazard"]) {
    await expect(write.locator(`[name="confined space entry: ${name}"]`)).toBeChecked();
  }
  await hand.tick(write.getByRole("checkbox", { name: /hydrogen sulphide/i }));
  const when = new Date(clock.now_ms - 30 * 24 * HOUR_MS).toISOString().slice(0, 10);
  for (const [name, text] of [
    ["hazards", "Oil film; heat."],
    ["precautions", "Blinds in; blower on."],
    ["confined space entry: otherWords", "Heat from the shell."],
    ["confined space entry: blower_m3_s", "1800"],
    ["confined space entry: bends", "1"],
    ["confined space entry: ventilation", "FAN-1"],
    ["confined space entry: rescue", "Winch at the manhole."],
    ["confined space entry: rehearsed_ms", when],
  ] as const) {
    const field = write.locator(`[name="${name}"]`);
    if ((await field.inputValue()) === "") await hand.type(field, text);
  }
  await hand.send(bram, write, "write the entry permit");
  await expect(bram.getByText(/P-\d{4}/).first()).toBeVisible();
  expect(hand.fields).toBeLessThanOrEqual(10);
});
