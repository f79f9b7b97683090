import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { CALCULATORS } from "./calculators";
import type { Field } from "../fields";

const PAGE = join(__dirname, "../../../../docs/calculators.md");

/** A field as the page writes it: what may be left out has a question mark, what is taken then an equals sign. */
function written(key: string, field: Field): string {
  switch (field.type) {
    case "number":
      return field.optional ? `${key}?` : field.default === undefined ? key : `${key} = ${field.default}`;
    case "choice":
      return `${key}: ${field.choices.join(" / ")}`;
    case "rows":
      return `${key}: [{ ${Object.keys(field.columns).join(", ")} }]`;
  }
}

const rows = CALCULATORS.map(({ name, title, fields, schema }) => {
  const inputs = Object.entries(fields).map(([key, field]) => written(key, field));
  return [`\`${name}\``, title, schema ? "steps: [{ id, duration_s, after: [] }]" : inputs.join(", ")];
});

/** Set LANTERN_STORE_ANSWERS=1 to write the table anew, then format it. */
test("docs/calculators.md lists every calculator with its inputs as they are", () => {
  const [head] = readFileSync(PAGE, "utf8").split("| name");
  if (process.env.LANTERN_STORE_ANSWERS) {
    const table = [["name", "question", "inputs"], ["---", "---", "---"], ...rows];
    writeFileSync(PAGE, `${head}${table.map((row) => `| ${row.join(" | ")} |`).join("\n")}\n`);
  }
  const listed = readFileSync(PAGE, "utf8")
    .split("\n")
    .filter((line) => line.startsWith("| `"))
    .map((line) =>
      line
        .split("|")
        .slice(1, -1)
        .map((cell) => cell.trim()),
    );
  expect(listed).toEqual(rows);
});
