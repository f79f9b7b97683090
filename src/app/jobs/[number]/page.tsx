import { notFound, redirect } from "next/navigation";
import { jobView } from "@/server/queries/jobView";
import { requirePerson } from "@/server/session";
import { requestTime_ms } from "@/server/siteTime";

/** A job opens where its next act is. */
export default async function JobPage({ params }: { params: Promise<{ number: string }> }) {
  await requirePerson();
  const { number } = await params;
  const view = jobView(number, requestTime_ms());
  if (view === null) notFound();
  redirect(`/jobs/${number}/${view.next?.stage ?? "ask"}`);
}
