import { figure } from "@/core/units/format";
import { wayOutWords } from "@/core/words/en/conflicts";
import { waysOutOf } from "@/server/board/conflicts";
import { database } from "@/server/db/database";
import { currentPerson } from "@/server/people/session";
import { now_ms } from "@/server/runtime/clock";
import { siteTime } from "@/server/runtime/siteTime";

const LONGEST = 2000;

/** Ways out of one conflict, in words. Changes nothing. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response(null, { status: 401 });
  const id = new URL(request.url).searchParams.get("conflict") ?? "";
  const ways = id.length > LONGEST ? null : waysOutOf(database(), id, now_ms());
  if (ways === null) return Response.json({ sentence: "This conflict is not there any more." }, { status: 404 });
  return Response.json({
    ways: ways.map((way) => wayOutWords(way, siteTime, (metres) => figure(metres, "length", person.units))),
  });
}
