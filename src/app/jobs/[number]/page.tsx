import { notFound, redirect } from "next/navigation";
import { jobView } from "@/server/job/jobView";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms } from "@/server/runtime/siteTime";

/** A job opens where its next act is. */
export default async function JobPage({ params }: { params: Promise<{ number: string }> }) {
  await requirePerson();
  const { number } = await params;
  const view = jobView(number, requestTime_ms());
  if (view === null) notFound();
  redirect(`/jobs/${number}/${view.next?.stage ?? "ask"}`);
}
