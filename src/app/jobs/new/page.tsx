import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { HOWS } from "@/core/request/jobFile";
import { jobView, peopleToChoose } from "@/server/job/jobView";
import { allPlaces } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms } from "@/server/runtime/siteTime";
import { PROFILES } from "@/core/requirement/profiles";
import { AskForm } from "@/ui/job/AskForm";

export const metadata: Metadata = { title: "New request" };

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ like?: string }> }) {
  await requirePerson();
  const { like: asked } = await searchParams;
  const like = asked ? jobView(asked, requestTime_ms()) : null;
  const places = allPlaces();
  if (places.length === 0) redirect("/plant/import");
  return (
    <div className="max-w-4xl px-4 py-4 md:px-5">
      <h1 className="mb-2 text-2xl font-semibold tracking-tight">New request</h1>
      {like && (
        <p className="mb-4 max-w-prose">
          As <span className="tag">{like.number}</span> was. The window is still to be written; everything else can be
          changed. Its points are judged on the plant of today, and what differs is shown.
        </p>
      )}
      <AskForm
        places={places}
        people={peopleToChoose()}
        hows={HOWS}
        profiles={PROFILES.map(({ id, name }) => ({ id, name }))}
        like={
          like
            ? {
                job: like.number,
                title: like.title,
                work: like.work,
                faces: like.job.faces,
                profile: like.job.profile,
                longerThanShift: like.job.longerThanShift,
                from: "",
                to: "",
                holder: like.holderId,
                crew: like.crewIds,
              }
            : undefined
        }
      />
    </div>
  );
}
