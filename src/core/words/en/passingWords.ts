import type { Refusal } from "../../refusal/refusal";

/** Two plans of which one stops what the other needs passing, or the relief behind it. */
export function passingWords(refusal: Extract<Refusal, { code: "must stay passing" | "stopped elsewhere" }>): string {
  const { device, job, relief } = refusal;
  switch (refusal.code) {
    case "must stay passing":
      return relief
        ? `${device} opens the relief on which points of job ${job} count: shut, more may come to their flanges than these bear. Choose another point, or plan that job anew first.`
        : `${device} must stay passing for job ${job}. Choose another point, or agree it with that job first.`;
    case "stopped elsewhere":
      return relief
        ? `Points of this plan count on a relief that job ${job} shuts at ${device}: more may come to their flanges than these bear. Pin other points, or wait for that job.`
        : `${device} must stay passing for this job, and job ${job} stops it. Agree it with that job first.`;
  }
}
