import { problemLine } from "../../core/plant/problem";
import type { StagedRegister } from "../../workers/stageRegister";
import type { TakenUpload } from "../../workers/takeUpload";
import { databasePath } from "../db/database";
import { currentPerson } from "../people/session";
import { now_ms } from "../runtime/clock";
import { isOwnOrigin, readAtMost } from "../runtime/http";
import { Busy, heavy } from "../runtime/workers";

/** A register of 100,000 items is some 12 MB of JSON. */
const MOST_BYTES = 16 * 1024 * 1024;
const PROBLEMS_SHOWN = 50;

export type Received = Readonly<{
  person: NonNullable<Awaited<ReturnType<typeof currentPerson>>>;
  upload: Extract<TakenUpload, { ok: true }>;
  register: StagedRegister;
  warnings: readonly string[];
}>;

/** The plant files of a form, counted, read and staged; or the answer that says everything that is wrong with them. */
export async function receiveRegister(request: Request): Promise<Received | Response> {
  if (!isOwnOrigin(request)) return refused(403, ["The upload came from another site and was not read."]);
  const person = await currentPerson();
  if (person === null) return refused(401, ["You are not signed in. Sign in and send the files again."]);
  if (person.crewRound !== undefined) return refused(403, ["This screen stands at a box and imports nothing."]);
  if (!person.roles.includes("coordinator")) return refused(403, ["Only a coordinator may import a plant register."]);
  const body = await readAtMost(request, MOST_BYTES);
  if (body === null) return refused(413, ["The files are larger than 16 MB. Nothing was stored."]);
  const sent = { body, contentType: request.headers.get("content-type") ?? "" };
  let upload: TakenUpload;
  try {
    upload = await heavy("take upload", { file: databasePath(), upload: sent, now_ms: now_ms() });
  } catch (error) {
    if (error instanceof Busy) return refused(503, [error.message]);
    throw error;
  }
  if (!upload.ok) return refused(400, [upload.problem]);
  const { register } = upload;
  if (!register.ok) {
    const lines = register.problems.map(problemLine);
    const more = lines.length - PROBLEMS_SHOWN;
    return refused(400, [
      ...lines.slice(0, PROBLEMS_SHOWN),
      ...(more > 0 ? [`and ${more} more`] : []),
      "Nothing was stored.",
    ]);
  }
  const warnings = register.value.warnings.map(problemLine).slice(0, PROBLEMS_SHOWN);
  return { person, upload, register: register.value, warnings };
}

export function refused(status: number, problems: readonly string[], field?: string): Response {
  return Response.json({ ok: false, problems, field }, { status });
}
