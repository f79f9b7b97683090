import { problemLine } from "@/core/plant/problem";
import { runAct } from "@/server/acts/runAct";
import { databasePath } from "@/server/db/database";
import { Taken } from "@/server/plant/plantActs";
import { now_ms } from "@/server/runtime/clock";
import { isOwnOrigin, readAtMost } from "@/server/runtime/http";
import { Busy, heavy } from "@/server/runtime/workers";
import { currentPerson } from "@/server/people/session";
import type { TakenUpload } from "@/workers/takeUpload";

/** A register of 100,000 items is some 12 MB of JSON. */
const MOST_BYTES = 16 * 1024 * 1024;
const PROBLEMS_SHOWN = 50;

/** Takes the plant files, counts their bytes, says everything that is wrong, and imports only when nothing is. */
export async function POST(request: Request): Promise<Response> {
  if (!isOwnOrigin(request)) return refuse(403, ["The upload came from another site and was not read."]);
  const person = await currentPerson();
  if (person === null) return refuse(401, ["You are not signed in. Sign in and send the files again."]);
  if (!person.roles.includes("coordinator")) return refuse(403, ["Only a coordinator may import a plant register."]);
  const body = await readAtMost(request, MOST_BYTES);
  if (body === null) return refuse(413, ["The files are larger than 16 MB. Nothing was stored."]);
  const upload = { body, contentType: request.headers.get("content-type") ?? "" };
  let taken: TakenUpload;
  try {
    taken = await heavy("take upload", { file: databasePath(), upload, now_ms: now_ms() });
  } catch (error) {
    if (error instanceof Busy) return refuse(503, [error.message]);
    throw error;
  }
  if (!taken.ok) return refuse(400, [taken.problem]);
  const { actId, pin, register } = taken;
  if (!register.ok) {
    const lines = register.problems.map(problemLine);
    const more = lines.length - PROBLEMS_SHOWN;
    return refuse(400, [
      ...lines.slice(0, PROBLEMS_SHOWN),
      ...(more > 0 ? [`and ${more} more`] : []),
      "Nothing was stored.",
    ]);
  }
  const input = { files: [], taken: new Taken(register.value) };
  const answer = await runAct({ version: 1, actId, type: "plant.import", input, pin }, person, Date.now());
  if (!answer.ok) return refuse(answer.status, [answer.sentence], answer.field);
  return Response.json({
    ok: true,
    ...answer.answer,
    warnings: register.value.warnings.map(problemLine).slice(0, PROBLEMS_SHOWN),
  });
}

function refuse(status: number, problems: readonly string[], field?: string): Response {
  return Response.json({ ok: false, problems, field }, { status });
}
