import { eq } from "drizzle-orm";
import { database } from "@/server/db/database";
import { photos } from "@/server/db/schema";
import { currentPerson } from "@/server/people/session";

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("You are not signed in.", { status: 401 });
  const { id } = await params;
  const row = database().select().from(photos).where(eq(photos.id, id)).get();
  if (row === undefined) return new Response("There is no such picture.", { status: 404 });
  return new Response(new Uint8Array(row.jpeg), {
    headers: {
      "content-type": "image/jpeg",
      "cache-control": "private, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
    },
  });
}
