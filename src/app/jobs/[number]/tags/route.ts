import { paperResponse } from "@/server/paper/respond";
import { tagSheet } from "@/server/paper/tagSheet";
import { jobView } from "@/server/job/jobView";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  return paperResponse(request, `/jobs/${number}/walk`, `tags-${number}`, async ({ url, head, now_ms }) => {
    const view = jobView(number, now_ms);
    return view?.isolation ? tagSheet(view, url, head, now_ms) : null;
  });
}
