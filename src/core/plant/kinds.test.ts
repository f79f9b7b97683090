import { readFileSync } from "node:fs";
import { join } from "node:path";
import { KINDS } from "./kinds";

const page = () => readFileSync(join(__dirname, "../../../docs/kinds.md"), "utf8");

/** One row of the page for each kind, as the code has it. */
function rowOf(kind: string): string {
  const { converts, convertsAcross = [], convertsWhereLinked = [], surelyPasses } = KINDS[kind]!;
  const said = [
    ...converts.map(([a, b]) => `${a}→${b}`),
    ...convertsAcross.map(([a, b]) => `${a}→${b} from part to part`),
    ...convertsWhereLinked.map(([a, b]) => `${a}→${b} where linked`),
  ];
  return `| ${kind} | ${said.join(", ") || "–"} | ${surelyPasses === false ? "no" : "yes"} |`;
}

describe("docs/kinds.md", () => {
  test("has every kind as the engine takes it, and no other", () => {
    // Set LANTERN_PRINT_KINDS to print the rows when the table has changed.
    if (process.env.LANTERN_PRINT_KINDS) process.stderr.write(`${Object.keys(KINDS).map(rowOf).join("\n")}\n`);
    const bare = (row: string) => row.replace(/\s+/g, " ");
    const rows = page()
      .split("\n")
      .filter((line) => /^\| [a-z]/.test(line) && !line.startsWith("| kind"))
      .map(bare);
    expect(rows).toEqual(Object.keys(KINDS).map(rowOf).map(bare));
  });
});
