import { entriesOf, signedBy } from "./permitLog";
import type { PermitLife } from "./permitTypes";

/** Work that was handed back part done: what of it is left, in the words of who led it. */
export type LeftToDo = Readonly<{ permit: string; at_ms: number; words: string }>;

/**
 * What is left to do of a job, by its permits: what the holder left when they handed a permit back, until a later permit of the
 * same kind is handed back with nothing left. Cost: the square of the permits of one job, which are few.
 */
export function leftToDo(permits: readonly Pick<PermitLife, "number" | "details" | "state" | "log">[]): LeftToDo[] {
  return permits.flatMap((permit) => {
    const left = entriesOf(permit.log, "left to do").at(-1);
    if (left === undefined) return [];
    const finished = permits.some(({ number, details, log }) => {
      const back = signedBy(log, "hand back");
      const isLater = number !== permit.number && back !== undefined && back.at_ms > left.at_ms;
      return isLater && details.kind === permit.details.kind && entriesOf(log, "left to do").length === 0;
    });
    return finished ? [] : [{ permit: permit.number, at_ms: left.at_ms, words: left.words }];
  });
}
