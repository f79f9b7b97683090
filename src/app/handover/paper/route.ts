import { paperResponse } from "@/server/paper/respond";
import { shiftSheet } from "@/server/paper/shiftSheet";
import { shiftState } from "@/server/job/shiftState";

/** The shift handover sheet, as things are now. */
export async function GET(request: Request): Promise<Response> {
  return paperResponse(request, "/", "shift-handover", ({ url, head, now_ms }) =>
    shiftSheet(shiftState(now_ms), url, head, now_ms),
  );
}
