/** One plan needs a device stopping that another job needs passing. */
export type Clash = Readonly<{ device: string; stoppedBy: string; neededBy: string }>;

/** Cost: linear in points and needs. */
export function clashesOf(
  jobs: readonly Readonly<{ number: string; points: readonly string[]; mustPass: readonly string[] }>[],
): Clash[] {
  const stopped = new Map<string, string[]>();
  for (const { number, points } of jobs) {
    for (const device of points) stopped.set(device, [...(stopped.get(device) ?? []), number]);
  }
  return jobs.flatMap(({ number, mustPass }) =>
    mustPass.flatMap((device) =>
      (stopped.get(device) ?? [])
        .filter((other) => other !== number)
        .map((other) => ({ device, stoppedBy: other, neededBy: number })),
    ),
  );
}
