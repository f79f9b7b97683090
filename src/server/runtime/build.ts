import { readFileSync } from "node:fs";
import { join } from "node:path";

let known: string | undefined;

/** Which build this is; "development" where there is none. What a device keeps of pages is kept by it. */
export function buildId(): string {
  return (known ??= read());
}

function read(): string {
  try {
    return readFileSync(
      join(/*turbopackIgnore: true*/ process.env.LANTERN_HOME ?? ".", ".next", "BUILD_ID"),
      "utf8",
    ).trim();
  } catch {
    return "development";
  }
}
