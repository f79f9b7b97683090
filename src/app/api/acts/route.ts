import { answerAct } from "@/server/acts/actRoute";
import { PAGE_HEADER } from "@/ui/act/pageName";

/** Every act of every user comes in here, as versioned JSON with a client act id. */
export function POST(request: Request): Promise<Response> {
  return answerAct(request, request.headers.get(PAGE_HEADER)?.slice(0, 64) ?? null);
}
