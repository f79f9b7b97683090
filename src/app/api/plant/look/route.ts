import { database } from "@/server/db/database";
import { lookAtRegister } from "@/server/plant/lookAtRegister";
import { receiveRegister, refused } from "@/server/plant/receiveRegister";
import { Busy } from "@/server/runtime/workers";

/** What a register in these files would change, and what it would do to work in hand. Changes nothing. */
export async function POST(request: Request): Promise<Response> {
  const received = await receiveRegister(request);
  if (received instanceof Response) return received;
  try {
    const look = await lookAtRegister(database(), received.register);
    return Response.json({ ok: true, ...look, warnings: received.warnings });
  } catch (error) {
    if (error instanceof Busy) return refused(503, [error.message]);
    throw error;
  }
}
