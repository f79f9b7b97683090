import { DETAIL_FIELDS, readDetails } from "./detailFields";

// The page says the site's zone; no page is here.
beforeAll(() => Object.assign(globalThis, { document: { documentElement: { dataset: { zone: "UTC" } } } }));
afterAll(() => void Reflect.deleteProperty(globalThis, "document"));

test.each(["badAir", "engulfing", "trapping", "otherHazard"])(
  "of a space %s stands ticked beforehand, and what somebody takes away is said to be away",
  (name) => {
    const fields = DETAIL_FIELDS["confined space entry"];
    expect(fields.find((one) => one.name === name)).toMatchObject({ as: "tick", initial: "on" });
    const form = new FormData();
    for (const { name: one, initial } of fields) if (initial === "on" && one !== name) form.set(one, "on");
    const read = readDetails("confined space entry", form, "metric");
    expect(read).toMatchObject({ badAir: true, engulfing: true, trapping: true, otherHazard: true, [name]: false });
  },
);

test("no field of any kind stands ticked as the kinder answer", () => {
  const begun = Object.entries(DETAIL_FIELDS).flatMap(([kind, fields]) =>
    fields.filter(({ as, initial }) => as === "tick" && initial === "on").map(({ name }) => `${kind}: ${name}`),
  );
  expect(begun).toEqual(
    ["badAir", "engulfing", "trapping", "otherHazard"].map((name) => `confined space entry: ${name}`),
  );
});
