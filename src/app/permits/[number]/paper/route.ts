import { permitPaper } from "@/server/paper/permitPaper";
import { paperResponse } from "@/server/paper/respond";
import { permitView } from "@/server/queries/board";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  return paperResponse(request, `/permits/${number}`, `permit-${number}`, async ({ url, head, now_ms }) => {
    const permit = permitView(number, now_ms);
    return permit && permitPaper(permit, head, url, now_ms);
  });
}
