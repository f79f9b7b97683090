import { Caster, type AlarmRow, type Screen } from "./caster";
import { announce } from "./events";

const act = (subject: string) => announce({ kind: "act", subject, about: [subject] });
const alarm = (subject: string) => announce({ kind: "alarm", subject, about: [subject] });

/** A ledger of which one counts how often it is asked. */
function ledger() {
  const rows: AlarmRow[] = [];
  const said = { head: 0, asked: 0, broken: false };
  return {
    said,
    alarm: (subject: string) => rows.push({ seq: ++said.head, subject }),
    row: () => ++said.head,
    ask: {
      alarmsAfter: (seq: number) => {
        said.asked++;
        if (said.broken) throw new Error("the disk is gone");
        return rows.filter((one) => one.seq > seq);
      },
      head: () => said.head,
    },
  };
}
function screen(heard: number) {
  const told: string[] = [];
  const line: Screen = { heard, send: (bytes) => told.push(new TextDecoder().decode(bytes)) };
  return { line, told, events: () => told.join("").match(/^(id|data): .*$/gm) ?? [] };
}
const faults: unknown[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  faults.length = 0;
});
afterEach(() => jest.useRealTimers());

test("what happens together is told together, an alarm at once; the ledger is asked for all screens once", () => {
  const of = ledger();
  const caster = new Caster(of.ask, (error) => faults.push(error));
  const many = Array.from({ length: 300 }, () => screen(0));
  const leave = many.map(({ line }) => caster.join(line));
  of.row();
  act("G-1");
  of.row();
  act("G-2");
  expect(many[7]!.told).toEqual([]);
  jest.advanceTimersByTime(250);
  const together = [
    "id: 2",
    'data: {"kind":"act","subject":"G-1","about":["G-1"]}',
    "id: 2",
    'data: {"kind":"act","subject":"G-2","about":["G-2"]}',
  ];
  expect(many.map(({ events }) => events())).toEqual(many.map(() => together));
  expect(of.said.asked).toBeLessThanOrEqual(4);
  of.alarm("P-0001");
  act("P-0001");
  expect(many.every(({ told }) => told.length === 2)).toBe(true);
  expect(many[0]!.told[1]).toContain('{"kind":"alarm","subject":"P-0001","about":["P-0001"]}');
  leave.forEach((one) => one());
  act("G-3");
  jest.advanceTimersByTime(1000);
  expect(many[0]!.told).toHaveLength(2);
});

test("each alarm is told to each screen once, whoever joined when and whatever it knew", () => {
  const of = ledger();
  const caster = new Caster(of.ask, (error) => faults.push(error));
  of.alarm("P-0001");
  const [early, late] = [screen(0), screen(1)];
  caster.join(late.line);
  caster.join(early.line);
  act("G-1");
  jest.advanceTimersByTime(250);
  of.alarm("P-0002");
  act("P-0002");
  const alarms = (one: typeof early) =>
    one
      .events()
      .filter((line) => line.includes('"alarm"'))
      .map((line) => /P-\d+/.exec(line)![0]);
  expect(alarms(early)).toEqual(["P-0001", "P-0002"]);
  expect(alarms(late)).toEqual(["P-0002"]);
});

test("a screen that is gone, and a ledger that cannot be read, keep no alarm from the others", () => {
  const of = ledger();
  const caster = new Caster(of.ask, (error) => faults.push(error));
  const gone: Screen = {
    heard: 0,
    send: () => {
      throw new Error("closed");
    },
  };
  const here = screen(0);
  caster.join(gone);
  caster.join(here.line);
  of.said.broken = true;
  alarm("P-0003");
  expect(here.events()).toEqual(["id: 0", 'data: {"kind":"alarm","subject":"P-0003","about":["P-0003"]}']);
  expect(faults.length).toBeGreaterThan(0);
  of.said.broken = false;
  of.alarm("P-0004");
  act("G-1");
  expect(here.told.join("")).toContain("P-0004");
});
