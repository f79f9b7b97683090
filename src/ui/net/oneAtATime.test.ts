import { oneAtATime } from "./oneAtATime";

/** Questions that stay open until they are answered by hand. */
function questions() {
  const open: { answer: () => void; fail: () => void }[] = [];
  const ask = jest.fn(
    () => new Promise<void>((answer, fail) => open.push({ answer, fail: () => fail(new Error("no")) })),
  );
  const settled = () => new Promise((then) => setImmediate(then));
  return { open, ask, settled };
}

test("who calls while one runs waits for another that begins after their call; all of them for the same", async () => {
  const { open, ask, settled } = questions();
  const call = oneAtATime(ask);
  const done: string[] = [];
  void call().then(() => done.push("first"));
  void call().then(() => done.push("second"));
  void call().then(() => done.push("third"));
  await settled();
  expect(ask).toHaveBeenCalledTimes(1);
  open[0]!.answer();
  await settled();
  expect(done).toEqual(["first"]);
  expect(ask).toHaveBeenCalledTimes(2);
  void call().then(() => done.push("fourth"));
  open[1]!.answer();
  await settled();
  expect(done).toEqual(["first", "second", "third"]);
  expect(ask).toHaveBeenCalledTimes(3);
  open[2]!.answer();
  await settled();
  expect(done).toEqual(["first", "second", "third", "fourth"]);
  void call();
  expect(ask).toHaveBeenCalledTimes(4);
});

test("one that fails is told to its caller, and keeps nobody else from asking", async () => {
  const { open, ask, settled } = questions();
  const call = oneAtATime(ask);
  const first = call();
  const second = call();
  open[0]!.fail();
  await expect(first).rejects.toThrow("no");
  await settled();
  expect(ask).toHaveBeenCalledTimes(2);
  open[1]!.answer();
  await expect(second).resolves.toBeUndefined();
});
