import { certificate } from "@/server/paper/certificate";
import { lanternDrawing } from "@/server/paper/lanternDrawing";
import { paperResponse } from "@/server/paper/respond";
import { jobView } from "@/server/job/jobView";
import { lanternOf, planOf } from "@/server/job/plans";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  return paperResponse(request, `/jobs/${number}/walk`, `certificate-${number}`, async ({ url, head, now_ms }) => {
    const view = jobView(number, now_ms);
    if (!view?.isolation) return null;
    const plan = await planOf(view, "work");
    const { scene, frames, now } = lanternOf(view, plan);
    const drawing = await lanternDrawing(scene, frames[now]!, view.held);
    return certificate(view, drawing, url, head, now_ms, plan);
  });
}
