import { message, SCENARIOS } from "../instruments/scenarios";
import { endQuietly } from "./endQuietly";

endQuietly();

/**
 * A simulated instrument, as a process of its own: sends one message each second by the protocol of docs/instruments.md.
 *
 *   ./lantern instruments SCENARIO [--url http://127.0.0.1:4180] [--token TOKEN] [--seconds 600]
 */

const say = (text: string) => process.stdout.write(`${text}\n`);
const fail = (text: string): never => {
  process.stderr.write(`${text}\n`);
  process.exit(1);
};

const DEMO_TOKEN = "demo-token-of-detector-gd-1";
const EVERY_MS = 1000;

function option(args: readonly string[], name: string, otherwise: string): string {
  const at = args.indexOf(`--${name}`);
  return at < 0 ? otherwise : (args[at + 1] ?? fail(`--${name} needs a value`));
}

async function main(args: readonly string[]): Promise<void> {
  const [name = ""] = args;
  const scenario = SCENARIOS[name];
  if (scenario === undefined) {
    const list = Object.entries(SCENARIOS).map(([one, { words }]) => `  ${one.padEnd(16)} ${words}`);
    return fail(`write: ./lantern instruments SCENARIO\n${list.join("\n")}`);
  }
  const url = `${option(args, "url", "http://127.0.0.1:4180").replace(/\/$/, "")}/api/instruments`;
  const token = option(args, "token", DEMO_TOKEN);
  const most = Number(option(args, "seconds", "600"));
  // Counts on from the clock, so that one that is started anew is not taken for an old message.
  const first = Math.floor(Date.now() / 1000);
  say(`${name}: ${scenario.words}. One message a second to ${url}`);
  for (let second = 0; second < most; second++) {
    const sent = message(scenario, second, first + second);
    if (sent !== null) await send(url, token, sent);
    await new Promise((done) => setTimeout(done, EVERY_MS));
  }
}

async function send(url: string, token: string, sent: object): Promise<void> {
  try {
    const response = await fetch(url, {
      method: "POST",
      headers: { "content-type": "application/json", authorization: `Bearer ${token}` },
      body: JSON.stringify(sent),
    });
    const answer = (await response.json()) as { ok: boolean; stopped?: string | null; sentence?: string };
    if (!answer.ok) say(`refused: ${answer.sentence}`);
    else if (answer.stopped) say(`stopped permit ${answer.stopped}`);
  } catch (error) {
    // The server may be restarting: an instrument goes on sending.
    say(`not sent: ${(error as Error).message}`);
  }
}

void main(process.argv.slice(2));
