import { boxSheet } from "@/server/paper/boxSheet";
import { paperResponse } from "@/server/paper/respond";
import { boxView } from "@/server/box/boxView";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  return paperResponse(request, `/boxes/${number}`, `box-${number}`, async ({ url, head, now_ms }) => {
    const box = boxView(number);
    return box && boxSheet(box, url, head, now_ms);
  });
}
