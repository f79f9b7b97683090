import { randomUUID } from "node:crypto";
import { DEMO_PIN } from "../../src/server/demo/demoPeople";
import { multiplySite } from "../support/bigSite";
import { generatedPlant } from "../support/generatedPlant";
import { realServer, share, timed } from "../support/realServer";

/** A large site over HTTP: the board, and stop-work beside an idle server and beside the heaviest work there is. */

const SITE = { open: 500, closed: 5000, permits: 14_000 };
const LOOKS = 40;
const STOPS = 200;
const IMPORT_ITEMS = 100_000;
const ms = (value: number) => value.toFixed(0);

process.env.LANTERN_TEST_HASHES = "1";
const server = await realServer({
  port: 4397,
  prepare: (db) => multiplySite(db.$client, SITE),
  more: { LANTERN_LOG: "warn" },
});
const { address } = server;
const headers = server.as("maren");
const act = (type: string, input: object) => server.act("maren", type, input);
const stopWork = () => timed(() => act("permit.stop", { permit: "P-0001", reason: "A drill of the bench" }));
const look = (page: string) => timed(() => fetch(`${address}${page}`, { headers }));

try {
  for (let i = 0; i < 3; i++) await look("/");
  const board: number[] = [];
  for (let i = 0; i < LOOKS; i++) {
    // Something changes between two looks, as it does on such a site.
    await stopWork();
    board.push(await look("/"));
  }
  const idle: number[] = [];
  for (let i = 0; i < STOPS; i++) idle.push(await stopWork());

  let over = false;
  const { plant } = generatedPlant(IMPORT_ITEMS, 7);
  // Without the dates of walking, so that it is within what an upload may weigh.
  const links = plant.links.map(({ walked: _, ...link }) => link);
  const file = new Blob([JSON.stringify({ ...plant, links })]);
  const form = new FormData();
  form.set("files", file, "plant.json");
  form.set("pin", DEMO_PIN);
  form.set("actId", randomUUID());
  const imported = timed(async () => {
    const looked = await fetch(`${address}/api/plant/look`, { method: "POST", headers, body: form });
    const { hash, on } = (await looked.json()) as { hash: string; on: number };
    form.set("seen", hash);
    form.set("on", String(on));
    return fetch(`${address}/api/plant/import`, { method: "POST", headers, body: form });
  });
  const compared = (async () => {
    for (let i = 0; !over; i++) {
      const device = ["V-2041", "V-2042"][i % 2]!;
      const to = ["pinned", "struck", "left to the engine"][i % 3]!;
      await (await act("plan.adjust", { job: "J-0003", device, to, reason: "a drill of the bench" })).text();
      await (await fetch(`${address}/jobs/J-0003/points`, { headers })).text();
    }
  })();
  const loaded: number[] = [];
  const importing = imported.finally(() => (over = true));
  while (!over) loaded.push(await stopWork());
  const took = await importing;
  await compared;
  process.stdout.write(`
| with ${SITE.open} open jobs, ${SITE.closed} closed, ${SITE.closed + SITE.permits} permits | n | median, ms | p95, ms | p99, ms | longest, ms | ÷ idle stop-work |
| --- | ---: | ---: | ---: | ---: | ---: | ---: |
${[
  ["the board, whole page", board],
  ["stop-work, idle server", idle],
  [`stop-work, while ${IMPORT_ITEMS} items come in and plans are compared`, loaded],
]
  .map(([name, all]) => {
    const times = all as number[];
    const figures = [0.5, 0.95, 0.99, 1].map((part) => ms(share(times, part)));
    return `| ${String(name)} | ${times.length} | ${figures.join(" | ")} | ${(share(times, 0.5) / share(idle, 0.5)).toFixed(1)} |`;
  })
  .join("\n")}

The import took ${(took / 1000).toFixed(1)} s. Node ${process.version}. Times of one run; compare only within it.
`);
} finally {
  await server.stop();
}
