import { answerAct } from "@/server/acts/actRoute";

/** One act by its own address, as programs send it. */
export async function POST(request: Request, { params }: { params: Promise<{ type: string }> }): Promise<Response> {
  return answerAct(request, null, (await params).type);
}
