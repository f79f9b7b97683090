import { z } from "zod";
import { tryWindow } from "@/server/board/tryWindow";
import { currentPerson } from "@/server/people/session";
import { now_ms } from "@/server/runtime/clock";

const asked = z.object({
  job: z.string().max(20),
  by_min: z.coerce.number().int().min(-60_480).max(60_480),
});

/** What would touch what if a planned job began earlier or later. Changes nothing. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response(null, { status: 401 });
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return Response.json({ sentence: "Name a job and minutes, up to six weeks." }, { status: 400 });
  const tried = tryWindow(person, read.data.job, read.data.by_min * 60_000, now_ms());
  return tried === null
    ? Response.json({ sentence: `${read.data.job} is not planned, or under way.` }, { status: 404 })
    : Response.json(tried);
}
