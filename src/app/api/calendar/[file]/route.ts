import { calendarFile } from "@/server/access/calendar";
import { personOfToken } from "@/server/access/accessStore";
import { database } from "@/server/db/database";
import { now_ms } from "@/server/runtime/clock";
import { siteOrigin } from "@/server/runtime/http";

/**
 * A calendar by an address of its own, for programs that can say nothing but an address. Whoever has it reads what is in it,
 * until it is revoked.
 */
export async function GET(request: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  const token = /^([\w-]{20,100})\.ics$/.exec((await params).file)?.[1];
  const found = token === undefined ? null : personOfToken(database(), token, now_ms());
  const rights = found?.access.rights ?? [];
  const isOfSite = rights.includes("site calendar");
  if (found === null || !(isOfSite || rights.includes("own calendar"))) {
    return new Response("This address opens no calendar, or no more.", { status: 401 });
  }
  const { person, access } = found;
  const text = calendarFile(database(), {
    person: isOfSite ? null : person.id,
    name: isOfSite ? "Heavy Lantern: the site" : `Heavy Lantern: ${person.name}`,
    origin: siteOrigin(request),
    now_ms: now_ms(),
  });
  return new Response(text, {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": `inline; filename="${access.number}.ics"`,
      "cache-control": "no-store",
    },
  });
}
