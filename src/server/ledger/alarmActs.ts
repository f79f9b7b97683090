import { z } from "zod";
import { answer, ANSWERING } from "../../core/alarm/alarm";
import { defineAct } from "../act/act";
import { namesOf } from "../people/signIn";
import { alarmAt, ANSWER } from "./alarms";

/** Somebody says by name that they see to an alarm; without a PIN, for they have other things to do. */
export const answerAlarm = defineAct({
  type: ANSWER,
  words: "answer an alarm",
  roles: ANSWERING,
  pin: false,
  input: z.object({ alarm: z.number("name the alarm by its row").int().min(1) }),
  run: ({ tx, person, now_ms }, { alarm: seq }) => {
    const alarm = alarmAt(tx, seq);
    if (alarm === null) {
      return { ok: false, subject: "", refusal: { code: "unknown", what: "alarm of row", name: String(seq) } };
    }
    const answered = answer(alarm, { by: person.id, at_ms: now_ms }, namesOf(tx));
    if (!answered.ok) return { ok: false, subject: alarm.subject, refusal: answered.refusal };
    const after_s = Math.round((now_ms - alarm.at_ms) / 1000);
    return { ok: true, subject: alarm.subject, answer: { alarm: seq, permit: alarm.subject, after_s } };
  },
});
