import { database } from "@/server/db/database";
import { hasRoomForPictures } from "@/server/runtime/reserve";
import { isOwnOrigin, readAtMost } from "@/server/runtime/http";
import { currentPerson } from "@/server/people/session";
import { PHOTO_MOST_BYTES, storePhoto } from "@/server/photos/storePhoto";

/** A picture of a step, as the raw bytes of the file. */
export async function POST(request: Request): Promise<Response> {
  const refuse = (status: number, sentence: string) => Response.json({ ok: false, sentence }, { status });
  if (!isOwnOrigin(request)) return refuse(403, "The picture came from another site and was not stored.");
  const person = await currentPerson();
  if (person === null) return refuse(401, "You are not signed in. Sign in, then send the picture again.");
  if (person.crewRound !== undefined) return refuse(403, "This screen stands at a box and takes no pictures.");
  if (!hasRoomForPictures()) {
    return refuse(
      503,
      "photo: the server's disk has little room left, and the picture was not stored. Do the step without it.",
    );
  }
  const bytes = await readAtMost(request, PHOTO_MOST_BYTES);
  if (bytes === null) return refuse(413, "photo: the picture is larger than 12 MB and was not stored.");
  const stored = await storePhoto(database(), bytes, person.id, Date.now());
  return stored.ok ? Response.json(stored) : refuse(400, stored.sentence);
}
