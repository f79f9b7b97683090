import { readJobValue } from "./jobFile";

const job = (more: object) =>
  readJobValue({ format: "heavy-lantern/job", version: 1, faces: [{ place: "P-1" }], ...more }, "job.json");

test("what a job's file does not say is taken as the worse: it outlasts a shift, and people meet it in every way", () => {
  const read = job({});
  expect(read.ok && read.value).toMatchObject({
    longerThanShift: true,
    profile: "strict",
    faces: [{ how: ["open", "touch", "enter", "hot", "near"] }],
  });
  expect(job({ longerThanShift: false })).toMatchObject({ ok: true, value: { longerThanShift: false } });
  expect(job({ longerThanShift: "no" }).ok).toBe(false);
});
