import { listAddress, readListQuery, sortedBy } from "./listQuery";

const COLUMNS = ["number", "until"] as const;
const USUAL = { sort: "number", down: true } as const;
const read = (address: string) =>
  readListQuery(Object.fromEntries(new URL(address, "http://x").searchParams), COLUMNS, USUAL);

test("what is asked stands in the address and is read from it again", () => {
  for (const sort of COLUMNS)
    for (const down of [true, false])
      for (const page of [1, 7]) {
        const query = { find: "seal & pump", sort, down, page };
        expect(read(listAddress("/permits", query, { state: "open" }))).toEqual(query);
      }
  expect(listAddress("/permits", { ...USUAL, find: "", page: 1 }, { state: "open", kind: "" })).toBe(
    "/permits?state=open&sort=number&down=1",
  );
});

test("nonsense in the address counts as not asked", () => {
  expect(read("/?sort=hash&down=1&page=-4")).toEqual({ find: "", sort: "number", down: true, page: 1 });
  expect(readListQuery({ find: ["a", "b"], page: "x" }, COLUMNS, USUAL)).toEqual({ find: "", page: 1, ...USUAL });
});

test("a column touched again turns round, and begins at the first page", () => {
  const first = sortedBy({ find: "", sort: "number", down: true, page: 3 }, "until");
  expect(first).toEqual({ find: "", sort: "until", down: false, page: 1 });
  expect(sortedBy(first, "until").down).toBe(true);
  expect(sortedBy(sortedBy(first, "until"), "until").down).toBe(false);
});
