import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { HOWS } from "@/core/request/jobFile";
import { peopleToChoose } from "@/server/job/jobView";
import { allPlaces } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { PROFILES } from "@/core/requirement/profiles";
import { AskForm } from "@/ui/job/AskForm";

export const metadata: Metadata = { title: "Ask for a job" };

export default async function NewJobPage() {
  await requirePerson();
  const places = allPlaces();
  if (places.length === 0) redirect("/plant/import");
  return (
    <div className="max-w-4xl px-4 py-8 md:px-8">
      <h1 className="mb-6 text-2xl font-semibold tracking-tight">Ask for a job</h1>
      <AskForm
        places={places}
        people={peopleToChoose()}
        hows={HOWS}
        profiles={PROFILES.map(({ id, name }) => ({ id, name }))}
      />
    </div>
  );
}
