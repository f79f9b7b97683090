import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { addressOf, exampleOf, inputsFromAddress } from "./address";
import { calculate } from "./calculator";
import { CALCULATORS } from "./calculators/calculators";

const onPage = CALCULATORS.filter((one) => one.schema === undefined);

/** An address as the page reads it. */
function read(words: string): Record<string, string | string[]> {
  const found: Record<string, string | string[]> = {};
  for (const key of new Set(new URLSearchParams(words).keys())) {
    const all = new URLSearchParams(words).getAll(key);
    found[key] = all.length === 1 ? all[0]! : all;
  }
  return found;
}

test("every example survives its own address", () => {
  for (const { name, fields } of onPage) {
    const example = exampleOf(fields);
    const back = inputsFromAddress(fields, read(addressOf(fields, example)));
    expect([name, back]).toEqual([name, { ok: true, raw: example }]);
  }
});

test("an address that says nothing opens the example; one that says something is taken at its word", () => {
  const drain = onPage.find((one) => one.name === "tank-drain")!;
  expect(inputsFromAddress(drain.fields, { other: "1" })).toEqual({ ok: true, raw: exampleOf(drain.fields) });
  const partly = inputsFromAddress(drain.fields, { diameter_m: "2" });
  expect(partly.ok && calculate(drain, partly.raw)).toMatchObject({ ok: false, key: "level_m", message: "is missing" });
});

test("whatever stands in an address, the page gets figures or one clear fault", () => {
  const word = fc.oneof(
    fc.constantFrom(
      "",
      "0",
      "-1",
      "1e9",
      "1e999",
      "1,5",
      "NaN",
      "Infinity",
      "vertical",
      "1:2",
      "1:2:3",
      ":",
      "0.01:0.02",
    ),
    fc.string({ maxLength: 12 }),
    fc.double({ noNaN: true }).map(String),
  );
  fc.assert(
    fc.property(
      fc.constantFrom(...onPage),
      fc.array(fc.oneof(word, fc.array(word, { maxLength: 3 })), { maxLength: 12 }),
      (which, words) => {
        const address = Object.fromEntries(Object.keys(which.fields).map((key, i) => [key, words[i]]));
        const asked = inputsFromAddress(which.fields, address);
        const done = asked.ok ? calculate(which, asked.raw, "us") : asked;
        if (done.ok) return;
        expect(Object.keys(which.fields)).toContain(done.key.split(".")[0]);
        expect(done.message).not.toMatch(/NaN|Infinity|undefined/);
      },
    ),
    propertyRuns(400),
  );
});
