import { permitPaper } from "@/server/paper/permitPaper";
import { paperResponse } from "@/server/paper/respond";
import { permitView } from "@/server/permit/permitView";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  return paperResponse(request, `/permits/${number}`, `permit-${number}`, async ({ url, head, now_ms }) => {
    const permit = permitView(number, now_ms);
    const copy = Number(new URL(request.url).searchParams.get("copy") ?? NaN);
    return permit && permitPaper(permit, Number.isInteger(copy) ? copy : null, head, url, now_ms);
  });
}
