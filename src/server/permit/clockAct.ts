import { eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { defineAct } from "../act/act";
import { permits } from "../db/schema";
import { line } from "../job/jobActs";
import { clockStep_ms } from "../runtime/clock";
import { setTimesRight } from "./clockTimes";
import { settleNumbers } from "./settlePermits";

/** States in which a clock that is set right moves a permit. */
const MOVED = ["issued", "live", "suspended", "work done"] as const;

/**
 * The server's clock was ahead and was set back. Until somebody says that it is right now, acts stand still at the ledger's
 * last moment. Then times run on, every live permit is stopped, nothing is dated later than now any more, and what was timed by
 * the wrong clock is looked at again: every proof is done anew, and all air is read anew.
 */
export const settleClock = defineAct({
  type: "clock.settle",
  words: "say that the clock is right",
  roles: ["coordinator"],
  pin: true,
  setsTheClock: true,
  input: z.object({ words: line("By what you compared it", 200) }),
  run: (context, { words }) => {
    const { tx, now_ms } = context;
    const back_ms = clockStep_ms(tx, now_ms);
    if (back_ms === null) return { ok: false, subject: "", refusal: { code: "clock is right" } };
    setTimesRight(tx, { by: context.person.id, now_ms, back_ms, words });
    const live = tx.select({ number: permits.number }).from(permits).where(eq(permits.state, "live")).all();
    return {
      ok: true,
      subject: "",
      answer: { back_s: Math.round(back_ms / 1000), stopped: live.length },
      // Each that it moves has a row of its own: the board and the alarms tell of it.
      then: (after, at_ms) => {
        const open = after
          .select({ number: permits.number })
          .from(permits)
          .where(inArray(permits.state, [...MOVED]))
          .all();
        const { moved, head } = settleNumbers(
          after,
          open.map(({ number }) => number),
          at_ms,
        );
        return { head, about: moved, fallen: [] };
      },
    };
  },
});
