import { database } from "@/server/db/database";
import { revisionToday } from "@/server/isolation/verdictStore";
import { mayRead } from "@/core/people/mayRead";
import { whoReads } from "@/core/words/en/reading";
import { currentPerson } from "@/server/people/session";
import { plantKey } from "@/server/plant/plantStore";
import { Busy, heavy } from "@/server/runtime/workers";
import { REGISTER_FILES, type RegisterFile } from "@/workers/writeRegister";

const TYPES: Readonly<Record<RegisterFile, string>> = {
  "plant.json": "application/json",
  "register.xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  "items.csv": "text/csv; charset=utf-8",
  "links.csv": "text/csv; charset=utf-8",
  "areas.csv": "text/csv; charset=utf-8",
};

/** The register of today as a file that comes back equal, for the site's own people. */
export async function GET(_: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response("Sign in first.", { status: 401 });
  if (!mayRead("files", person)) return new Response(whoReads("files"), { status: 403 });
  const { file } = await params;
  const as = REGISTER_FILES.find((one) => one === file);
  if (as === undefined)
    return new Response(`There is no ${file}; one of ${REGISTER_FILES.join(", ")}.`, { status: 404 });
  const db = database();
  const revision = revisionToday(db);
  if (revision === 0) return new Response("No register was imported yet.", { status: 404 });
  try {
    const written = await heavy("write register", { plant: plantKey(db, db.$client.name, revision), as });
    if (!written.ok) {
      const said = `Tables cannot say all of this register: ${written.lost.join(", ")}. Take plant.json, which can.`;
      return new Response(said, { status: 409 });
    }
    const [stem, ending] = as.split(".");
    return new Response(new Uint8Array(written.bytes), {
      headers: {
        "content-type": TYPES[as],
        "content-disposition": `attachment; filename="${stem}-revision-${revision}.${ending}"`,
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    if (error instanceof Busy) return new Response(error.message, { status: 503 });
    throw error;
  }
}
