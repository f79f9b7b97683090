import { problemLine } from "@/core/plant/problem";
import { runAct } from "@/server/acts/runAct";
import { readReady } from "@/server/plant/plantActs";
import { isOwnOrigin, readAtMost } from "@/server/runtime/http";
import { currentPerson } from "@/server/people/session";

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
  let form: FormData;
  try {
    form = await new Response(new Uint8Array(body), {
      headers: { "content-type": request.headers.get("content-type") ?? "" },
    }).formData();
  } catch {
    return refuse(400, ["The upload was cut short or is not a form. Send it again."]);
  }
  const files: { name: string; text: string }[] = [];
  for (const entry of form.getAll("files")) {
    if (typeof entry === "string" || entry.name === "") continue;
    const bytes = new Uint8Array(await entry.arrayBuffer());
    try {
      files.push({ name: entry.name, text: new TextDecoder("utf-8", { fatal: true }).decode(bytes) });
    } catch {
      return refuse(400, [`${entry.name}: the file is not text (UTF-8). Nothing was stored.`]);
    }
  }
  const read = await readReady(files);
  if (!read.ok) {
    const lines = read.problems.map(problemLine);
    const more = lines.length - PROBLEMS_SHOWN;
    return refuse(400, [
      ...lines.slice(0, PROBLEMS_SHOWN),
      ...(more > 0 ? [`and ${more} more`] : []),
      "Nothing was stored.",
    ]);
  }
  const pin = form.get("pin");
  const answer = await runAct(
    {
      version: 1,
      actId: form.get("actId"),
      type: "plant.import",
      input: { files },
      pin: typeof pin === "string" ? pin : undefined,
    },
    person,
    Date.now(),
  );
  if (!answer.ok) return refuse(answer.status, [answer.sentence], answer.field);
  return Response.json({
    ok: true,
    ...answer.answer,
    warnings: read.value.warnings.map(problemLine).slice(0, PROBLEMS_SHOWN),
  });
}

function refuse(status: number, problems: readonly string[], field?: string): Response {
  return Response.json({ ok: false, problems, field }, { status });
}
