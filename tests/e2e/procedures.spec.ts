import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { expectNoAxeViolation } from "./axe";
import { done } from "./work";
import { expect, openSite, sign, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";

/** A site of its own: its register changes. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4420 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

const DEMO = resolve(import.meta.dirname, "../../demo");
const text = (name: string) => readFileSync(join(DEMO, name), "utf8").trimEnd();

/** The demo's register with more rows: an item is its columns by name. */
function register(
  items: readonly Readonly<Record<string, string>>[],
  links: readonly Readonly<Record<string, string>>[],
) {
  const more = (file: string, rows: readonly Readonly<Record<string, string>>[]) => {
    const heads = file.slice(0, file.indexOf("\n")).split(",");
    return `${file}\n${rows.map((row) => heads.map((head) => row[head.trim()] ?? "").join(",")).join("\n")}\n`;
  };
  return {
    files: [
      { name: "items.csv", text: more(text("items.csv"), items) },
      { name: "links.csv", text: more(text("links.csv"), links) },
      { name: "areas.csv", text: text("areas.csv") },
    ],
  };
}

test("a procedure is written from a closed job, approved by two, used, read where the plant changed, refused where it is unsafe", async ({
  as,
}) => {
  const jonas = await as("Jonas Ekeberg");
  await jonas.goto("/jobs/J-0008/ask");
  await jonas.getByText("Write it into the library of procedures").click();
  await sign(jonas, "Write a procedure", { "What it is for": "Motor of air compressor 1, off and on" });
  await expect(jonas).toHaveURL(/\/procedures\/IP-0002/);
  await expect(jonas.getByText("it is not approved by two people yet")).toBeVisible();

  const odalys = await as("Odalys Brenn");
  await odalys.goto("/procedures/IP-0002");
  await sign(odalys, "Approve for the trade");
  await expect(odalys.getByText("Somebody who answers for the equipment approves it")).toBeVisible();
  const idris = await as("Idris Halloway");
  await idris.goto("/procedures/IP-0002");
  await sign(idris, "Approve for the equipment");
  // Not what a page says to those who listen to it.
  await expect(idris.getByRole("main").getByText("version 1 · approved")).toBeVisible();
  await expectNoAxeViolation(idris, "the procedure");
  expect((await idris.request.get("/procedures/IP-0002/placard")).headers()["content-type"]).toContain("pdf");

  // Somebody who was not watched looks on; nothing of the form is answered beforehand.
  const sunniva = await as("Sunniva Rask");
  await sunniva.goto("/procedures/IP-0002");
  await sunniva.getByText("Inspect it").click();
  const look = sunniva.getByRole("form", { name: "Inspect the procedure" });
  await look.getByRole("checkbox", { name: "Jonas Ekeberg" }).check();
  await look.getByLabel("What was found").fill("Followed step by step.");
  await sign(sunniva, "Inspect the procedure");
  await expect(look.getByRole("alert")).toContainText("say whether it was followed");
  await look.getByRole("radio", { name: "Yes" }).check();
  await sign(sunniva, "Inspect the procedure");
  await expect(sunniva.getByText("Followed step by step.")).toBeVisible();

  // By it: filled in, nothing otherwise, its hazards decided as it says.
  const maren = await as("Maren Tolve");
  const request = async () => {
    await maren.goto("/jobs/new?procedure=IP-0002");
    await expect(maren.getByLabel("Work location 1: tag, or tag.part")).toHaveValue("M-501");
    await maren.getByRole("radio", { name: /within the shift/ }).check();
    await maren.getByRole("button", { name: "Send the request" }).click();
    await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
    await maren.goto(maren.url().replace("energies", "points"));
    return /J-\d+/.exec(maren.url())![0];
  };
  const by = maren.getByRole("region", { name: "By the procedure" });
  const job = await request();
  await expect(by).toContainText("nothing is otherwise today: its one point holds");
  await maren.goto(`/jobs/${job}/hazards`);
  await expect(maren.getByText("as IP-0002 version 1").first()).toBeVisible();

  // Something new and harmless at the machine: it is read before the plan is approved.
  const gauge = { tag: "TI-599", kind: "gauge", name: "Bearing thermometer", area: "Compressor house" };
  await done(maren, "plant.import", register([gauge], [{ from: "M-501", to: "TI-599", carries: "heat" }]));
  const changed = await request();
  await expect(by).toContainText("Some of it is otherwise: read it.");
  await expect(by).toContainText("TI-599");
  await sign(maren, "Approve the plan shown");
  const approve = maren.getByRole("form", { name: "Approve the plan shown" });
  await expect(approve.getByRole("alert")).toContainText("is not as IP-0002 says");
  await approve.getByRole("checkbox", { name: /I have read/ }).check();
  await sign(maren, "Approve the plan shown");
  await expect(maren).toHaveURL(new RegExp(`/jobs/${changed}/walk`));

  // A second feed that nobody had drawn, past the point: refused, and the job goes on without the procedure.
  const feed = {
    tag: "GEN-9",
    kind: "incomer",
    name: "Hired generator",
    area: "Compressor house",
    voltage_V: "400",
    source: "power",
  };
  await done(maren, "plant.import", register([feed], [{ from: "GEN-9", to: "M-501", carries: "power" }]));
  await request();
  await expect(maren.getByRole("alert", { name: "By the procedure" })).toContainText("Nobody isolates by it.");
  await expect(maren.getByRole("alert", { name: "By the procedure" })).toContainText("GEN-9");
  await sign(maren, "Approve the plan shown");
  await expect(approve.getByRole("alert")).toContainText("By IP-0002 this cannot be isolated today");
  await maren.getByRole("button", { name: "Go on without the procedure" }).click();
  await expect(maren.getByRole("alert", { name: "By the procedure" })).toHaveCount(0);
});
