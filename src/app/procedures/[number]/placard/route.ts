import { procedureViews, stepsOfVersion } from "@/server/library/procedureView";
import { placard } from "@/server/paper/placard";
import { paperResponse } from "@/server/paper/respond";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const asked = new URL(request.url).searchParams.get("version");
  return paperResponse(request, `/procedures/${number}`, `placard-${number}`, async ({ url, head, now_ms }) => {
    const [procedure] = procedureViews(now_ms, number);
    if (procedure === undefined) return null;
    const { versions, current } = procedure;
    const version = versions.find(({ life }) => String(life.version) === asked) ?? current ?? versions[0]!;
    return placard(version, stepsOfVersion(version), { url, head, now_ms });
  });
}
