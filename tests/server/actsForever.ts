import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { runAct } from "../../src/server/acts/runAct";
import { addPerson } from "../../src/server/acts/addPerson";
import { database } from "../../src/server/db/database";
import { people } from "../../src/server/db/schema";
import { toPerson } from "../../src/server/people/signIn";

/** Does acts until it is killed, and prints the id of each one only when it is acknowledged. */
async function main(): Promise<void> {
  const db = database();
  if (db.select().from(people).all().length === 0) {
    const roles = ["coordinator", "holder"] as const;
    await addPerson(db, { name: "Nell", signIn: "nell", roles, competences: [], password: "x", pin: "1" });
  }
  const person = toPerson(db.select().from(people).all()[0]!, Date.now());
  const act = async (type: string, input: unknown) => {
    const actId = randomUUID();
    const answer = await runAct({ version: 1, actId, type, input, pin: "1" }, person, Date.now());
    if (!answer.ok) throw new Error(answer.sentence);
    process.stdout.write(`${actId}\n`);
  };
  const file = (name: string) => ({ name, text: readFileSync(join(process.env.LANTERN_HOME!, "demo", name), "utf8") });
  await act("plant.import", { files: [file("items.csv"), file("links.csv")] });
  const pace_ms = Number(process.env.LANTERN_PACE_MS ?? 0);
  for (;;) {
    if (pace_ms > 0) await new Promise((go) => setTimeout(go, pace_ms));
    await act("job.ask", {
      title: "Look at pump A",
      work: "Look.",
      faces: [{ place: "P-204A", how: ["near"] }],
      windowFrom_ms: 0,
      windowTo_ms: 1,
      longerThanShift: false,
      holder: person.id,
      crew: [],
    });
  }
}

void main();
