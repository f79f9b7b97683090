import { runAct } from "@/server/acts/runAct";
import { Taken } from "@/server/plant/plantActs";
import { receiveRegister, refused } from "@/server/plant/receiveRegister";

/** Imports the register in these files, where it is the one that was looked at and nothing has come in between. */
export async function POST(request: Request): Promise<Response> {
  const received = await receiveRegister(request);
  if (received instanceof Response) return received;
  const { person, upload, register, warnings } = received;
  if (upload.seen === undefined || upload.on === undefined) {
    return refused(400, ["Look first at what the files change: nothing was imported."]);
  }
  if (upload.seen !== register.hash) {
    return refused(409, ["These are other files than those you looked at. Look at them first: nothing was imported."]);
  }
  const input = { files: [], taken: new Taken(register, Number(upload.on)) };
  const sent = { version: 1, actId: upload.actId, type: "plant.import", input, pin: upload.pin };
  const answer = await runAct(sent, person, Date.now());
  if (!answer.ok) return refused(answer.status, [answer.sentence], answer.field);
  return Response.json({ ok: true, ...answer.answer, warnings });
}
