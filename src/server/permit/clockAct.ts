import { eq } from "drizzle-orm";
import { z } from "zod";
import { defineAct } from "../act/act";
import { permits } from "../db/schema";
import { duration } from "../../core/units/format";
import { line } from "../job/jobActs";
import { clockStep_ms } from "../runtime/clock";
import { changePermit } from "./changePermit";
import { setTimesRight } from "./clockTimes";

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
    const reason = `the server's clock was ${duration(back_ms / 1000)} ahead and is right now (${words})`;
    setTimesRight(tx, { by: context.person.id, now_ms, back_ms, words });
    const live = tx.select({ number: permits.number }).from(permits).where(eq(permits.state, "live")).all();
    for (const { number } of live) changePermit(context, number, { type: "stop", cause: "clock", reason });
    return { ok: true, subject: "", answer: { back_s: Math.round(back_ms / 1000), stopped: live.length } };
  },
});
