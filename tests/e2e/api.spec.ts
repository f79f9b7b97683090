import { randomUUID } from "node:crypto";
import { OpenAPIClientAxios } from "openapi-client-axios";
import { expect, openMenu, ownSite, PIN } from "./site";
import type { Page } from "@playwright/test";
import { soundReport } from "../../src/core/isolation/soundReport";
import type { PlannedStep } from "../../src/core/procedure/steps";
import { done, idOf } from "./work";
import { expectNoAxeViolation } from "./axe";

const test = ownSite();

type Answer = Readonly<{ ok: boolean; answer: Record<string, string>; sentence?: string }>;
/** Operations by their ids, as the description names them. */
type Client = Readonly<
  Record<
    string,
    (parameters: Readonly<Record<string, string>> | null, body: object) => Promise<{ data: Answer; status: number }>
  >
>;

/** A token that somebody makes on their own screen; what it opens is chosen there. */
async function makeToken(
  page: Page,
  what: Readonly<{ name: string; rights: readonly string[]; acts?: readonly string[] }>,
): Promise<string> {
  await page.goto("/");
  await openMenu(page);
  await page.getByRole("link", { name: "Calendar and programs" }).click();
  const form = page.getByRole("form", { name: "Make a token" });
  await form.getByLabel("What it is for").fill(what.name);
  for (const right of what.rights) await form.getByRole("checkbox", { name: new RegExp(`^${right}$`, "i") }).check();
  if (what.acts) await form.getByText("Acts that may come by it").click();
  for (const kind of what.acts ? await form.locator("details details summary").all() : []) await kind.click();
  for (const act of what.acts ?? []) await form.locator(`input[name="acts"][value="${act}"]`).check();
  await form.getByLabel(/For how many days/).fill("30");
  await form.getByLabel("PIN").fill(PIN);
  await form.getByRole("button", { name: "Make it" }).click();
  const told = page.getByRole("status").filter({ hasText: "Shown once" });
  return (await told.locator("dd").first().innerText()).trim();
}

/** A client made from the description alone. */
async function clientOf(url: string, token: string, sent = token): Promise<Client> {
  const headers = { authorization: `Bearer ${token}` };
  const asked = await fetch(`${url}/api/openapi.json`, { headers });
  expect(asked.status).toBe(200);
  const axiosConfigDefaults = { headers: { authorization: `Bearer ${sent}` }, validateStatus: () => true };
  const made = new OpenAPIClientAxios({ definition: (await asked.json()) as never, axiosConfigDefaults });
  return (await made.init()) as unknown as Client;
}

const MACHINE = "DR-803";
const LOCK = "O-41";
const HOUR_MS = 3_600_000;

test("a client made from the description does a whole job for two people, each by their own token and PIN, and nothing that it is not for", async ({
  as,
  site,
}) => {
  test.setTimeout(300_000);
  const maren = await as("Maren Tolve");
  const odalys = idOf(site, "Odalys Brenn");
  await done(maren, "gear.enter", { kind: "lock", number: LOCK, owner: odalys });
  const office = await makeToken(maren, {
    name: "Work orders",
    rights: ["the site's calendar", "lists, as tables", "jobs with their steps"],
    acts: ["job.ask", "hazard.decide", "hazard.conditions", "isolation.approve", "permit.draft", "permit.check"],
  });
  const phone = await as("Odalys Brenn");
  const field = await makeToken(phone, {
    name: "Hand-held",
    rights: ["jobs with their steps"],
    acts: ["step.do", "permit.begin-alone", "permit.end-alone", "return.start", "job.close"],
  });
  const plans = await clientOf(site.url, office);
  const hands = await clientOf(site.url, field);
  const act = async (client: Client, type: string, input: object) => {
    const { status, data } = await client[type]!(null, { actId: randomUUID(), input, pin: PIN });
    expect([type, status, data.sentence]).toEqual([type, 200, undefined]);
    return data.answer;
  };
  const jobOf = async (number: string) => {
    const { status, data } = await hands.job!({ number }, {});
    expect([number, status]).toEqual([number, 200]);
    return data as unknown as JobJson;
  };

  const now_ms = Date.now();
  const asked = {
    title: "Change the drive belt",
    work: "Guard off, belt changed, guard on.",
    faces: [{ place: MACHINE, how: ["touch"] }],
    longerThanShift: false,
    windowFrom_ms: now_ms,
    windowTo_ms: now_ms + 3 * HOUR_MS,
    holder: odalys,
    crew: [],
  };
  const actId = randomUUID();
  const first = await plans["job.ask"]!(null, { actId, input: asked });
  expect([first.status, first.data.sentence]).toEqual([200, undefined]);
  // The same again is answered again, and done once.
  expect((await plans["job.ask"]!(null, { actId, input: asked })).data).toEqual(first.data);
  const job = first.data.answer.job!;
  const { hazards, plantRevisionNow: plantRevision } = await jobOf(job);
  for (const { id } of hazards) await act(plans, "hazard.decide", { job, hazard: id, verdict: "kept" });
  await act(plans, "hazard.conditions", { job, weather: "Dry", tools: [], lifts: [] });
  const short = { route: "short", noOthersAtRisk: true, noAccidents: true };
  await act(plans, "isolation.approve", { job, objective: "effort", school: "work", plantRevision, ...short });
  const { permit } = await act(plans, "permit.draft", {
    job,
    words: asked.work,
    hazards: "Shock.",
    precautions: "Locked.",
    validFrom_ms: now_ms,
    validTo_ms: now_ms + 2 * HOUR_MS,
    details: { kind: "minor isolation" },
  });
  await act(plans, "permit.check", { permit });

  /** Every step that may be done now, in its order, by what the interface says of it. */
  const walk = async (phase: string) => {
    for (;;) {
      const { isolation } = await jobOf(job);
      const next = isolation!.steps.find((step) => step.phase === phase && !step.isDone && step.waitsFor.length === 0);
      if (next === undefined) return isolation!;
      await act(hands, "step.do", {
        isolation: isolation!.number,
        step: next.id,
        ...soundReport(next, { lock: LOCK }),
      });
    }
  };
  const isolation = await walk("isolate");
  expect(isolation).toMatchObject({ state: "proven", fault: null, stale: [] });
  await act(hands, "permit.begin-alone", { permit, briefed: true });
  // What it is not for is refused, whatever its owner may do; so are a wrong PIN, none, and a token of nobody's.
  const refusal = async (client: Client, type: string, body: object) => {
    const { status, data } = await client[type]!(null, { actId: randomUUID(), ...body });
    return [status, data.sentence];
  };
  const stop = { input: { permit, cause: "stop-work", reason: "A drill" } };
  expect(await refusal(hands, "permit.stop", stop)).toEqual([403, expect.stringMatching(/is not for this act/)]);
  expect(await refusal(hands, "permit.end-alone", { input: { permit }, pin: "0000" })).toEqual([
    403,
    expect.anything(),
  ]);
  expect((await refusal(hands, "permit.end-alone", { input: { permit } }))[0]).toBe(403);
  expect((await refusal(await nobody(site.url, field), "permit.end-alone", { input: { permit }, pin: PIN }))[0]).toBe(
    401,
  );

  await act(hands, "permit.end-alone", { permit });
  await act(hands, "return.start", { isolation: isolation.number });
  expect(await walk("restore")).toMatchObject({ state: "restored" });
  await act(hands, "job.close", { job });
  expect(await jobOf(job)).toMatchObject({ state: "closed", permits: [{ number: permit, state: "closed" }] });
  expect(site.lantern("verify").status).toBe(0);

  // Lists and the calendar by the one token, not by the other, and no page by either.
  const headers = { authorization: `Bearer ${office}` };
  const list = await fetch(`${site.url}/lists/jobs.csv`, { headers });
  expect([list.status, (await list.text()).includes(job)]).toEqual([200, true]);
  const calendar = await fetch(`${site.url}/api/calendar/${office}.ics`);
  expect([calendar.status, (await calendar.text()).includes("BEGIN:VEVENT")]).toEqual([200, true]);
  const other = { authorization: `Bearer ${field}` };
  expect((await fetch(`${site.url}/lists/jobs.csv`, { headers: other })).status).toBe(403);
  expect((await fetch(`${site.url}/api/calendar/${field}.ics`)).status).toBe(401);
  const page = await fetch(`${site.url}/jobs/${job}`, { headers, redirect: "manual" });
  expect(await page.text()).not.toContain("Change the drive belt");

  // The record says by which token it came.
  await maren.goto(`/ledger?find=${job}`);
  await expect(maren.getByText(/by a program, T-0001/).first()).toBeVisible();

  // Revoked, it opens nothing from that moment.
  await maren.goto("/programs");
  await expect(maren.getByRole("region", { name: "Of others" })).toContainText("Odalys Brenn: jobs with their steps");
  await maren.getByRole("form", { name: "Revoke T-0001" }).getByRole("button", { name: "Revoke" }).click();
  await expect(maren.getByText("You have none.")).toBeVisible();
  expect((await fetch(`${site.url}/lists/jobs.csv`, { headers })).status).toBe(401);
  expect((await fetch(`${site.url}/api/calendar/${office}.ics`)).status).toBe(401);
  expect((await refusal(plans, "job.ask", { input: asked }))[0]).toBe(401);
});

/** A client that was made while its token counted, with one that never did. */
const nobody = (url: string, token: string) => clientOf(url, token, "nobodys-token-at-all-here");

type JobJson = Readonly<{
  state: string;
  plantRevisionNow: number;
  hazards: readonly Readonly<{ id: string }>[];
  isolation: Readonly<{
    number: string;
    state: string;
    steps: readonly (PlannedStep & Readonly<{ isDone: boolean; waitsFor: readonly string[] }>)[];
  }> | null;
}>;

test("a calendar of one's own holds what is one's own; a phone is enough to make it", async ({ as, site }) => {
  const tomas = await as("Tomas Veyron");
  await tomas.setViewportSize({ width: 390, height: 844 });
  const token = await makeToken(tomas, { name: "My phone", rights: ["my calendar"] });
  await expectNoAxeViolation(tomas, "programs, made");
  const calendar = await (await fetch(`${site.url}/api/calendar/${token}.ics`)).text();
  expect(calendar).toContain("BEGIN:VCALENDAR");
  expect((await fetch(`${site.url}/lists/jobs.csv`, { headers: { authorization: `Bearer ${token}` } })).status).toBe(
    403,
  );
});
