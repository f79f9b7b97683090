import { keyOf, mergeAlarms, NOTHING, readKnown, seeAlarms, tellAlarm, unseen, type ShownAlarm } from "./alarmList";

const said = (more: Partial<ShownAlarm> = {}) => ({
  mayAnswer: true,
  again_ms: null,
  alarms: [{ seq: 5, subject: "P-0001", level: 0, words: null, answeredBy: null, ...more }] as (ShownAlarm & {
    seq: number;
  })[],
});

test("told on the line it shows at once, and once when the server has said it too", () => {
  const told = tellAlarm(tellAlarm(NOTHING, "P-0001"), "P-0001");
  expect(unseen(told)).toHaveLength(1);
  const known = mergeAlarms(told, said());
  expect(unseen(known)).toEqual(said().alarms);
});

test("seen here it is gone here, until it has become more", () => {
  const known = seeAlarms(mergeAlarms(NOTHING, said()), [keyOf(said().alarms[0]!)]);
  expect(unseen(known)).toEqual([]);
  expect(unseen(mergeAlarms(known, said()))).toEqual([]);
  expect(unseen(mergeAlarms(known, said({ level: 1 })))).toHaveLength(1);
});

test("the server's word is the last of a permit: answered and over, it goes", () => {
  const known = mergeAlarms(tellAlarm(NOTHING, "P-0001"), { ...said(), alarms: [] });
  expect(unseen(known)).toEqual([]);
});

test("what could not be written down stays until it is seen, and shows again when it is told again", () => {
  const told = mergeAlarms(tellAlarm(NOTHING, "all work on the site"), { ...said(), alarms: [] });
  expect(unseen(told)).toHaveLength(1);
  const seen = seeAlarms(told, unseen(told).map(keyOf));
  expect(unseen(seen)).toEqual([]);
  expect(unseen(tellAlarm(seen, "all work on the site"))).toHaveLength(1);
});

test("who answered is told after what nobody has answered", () => {
  const both = mergeAlarms(NOTHING, {
    ...said(),
    alarms: [...said({ answeredBy: "Ida" }).alarms, { ...said().alarms[0]!, seq: 6, subject: "P-0002" }],
  });
  expect(unseen(both).map(({ subject }) => subject)).toEqual(["P-0002", "P-0001"]);
});

test("what was kept is read back; what is none of it is as nothing", () => {
  const known = mergeAlarms(NOTHING, { ...said(), mayAnswer: false });
  expect(readKnown(JSON.parse(JSON.stringify(known)))).toEqual(known);
  for (const kept of [null, 7, ["P-0001"], { list: 1, seen: [] }]) expect(readKnown(kept)).toEqual(NOTHING);
  expect(readKnown({ list: [{ subject: 4 }, ...known.list], seen: [1, "x"] })).toEqual({ ...known, seen: ["x"] });
});

test("seen as the line told it, it stays seen when the server's list comes", () => {
  const told = tellAlarm(NOTHING, "P-0001");
  const seen = seeAlarms(told, unseen(told).map(keyOf));
  expect(unseen(mergeAlarms(seen, said()))).toEqual([]);
  expect(unseen(mergeAlarms(mergeAlarms(seen, said()), said({ level: 1 })))).toHaveLength(1);
});
