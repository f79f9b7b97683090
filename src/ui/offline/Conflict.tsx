"use client";

import { ActForm } from "../act/ActForm";
import { Small } from "../walk/EvidenceFields";
import { clock } from "../text/when";
import { forget } from "./keptActs";
import { type KeptAct } from "./keptAct";

/** What a device kept and what is there, side by side; a person on the spot says which is so. */
export function Conflict({
  act,
  there,
  timeZone,
  mayHangToo,
}: {
  act: KeptAct;
  /** What the server has, in words. */
  there: string;
  timeZone: string;
  mayHangToo: boolean;
}) {
  const { lock, plate, reading } = act.input as { lock?: string; plate?: string; reading?: number };
  const fixed = { refusedAct: act.actId, isolation: String(act.input.isolation) };
  const settle = (what: "undone" | "hangs too", label: string, button: string) => (
    <ActForm
      act="kept.settle"
      label={`${label}: ${act.label}`}
      fixed={{ ...fixed, what }}
      toInput={(fields) => ({ ...fixed, what, words: String(fields.get("words") ?? "") })}
      pin
      compact
      button={button}
      onDone={() => void forget(act.actId)}
    >
      <Small label="What is so on the spot" name="words" maxLength={500} className="w-72 max-w-full" />
    </ActForm>
  );
  return (
    <section aria-label={`No longer fits: ${act.label}`} className="border-error mt-3 space-y-3 border-l-4 pl-3">
      <p className="font-medium">{act.refusal?.sentence}</p>
      <dl className="grid gap-x-4 gap-y-1 text-sm sm:grid-cols-[6rem_1fr]">
        <dt>Yours</dt>
        <dd>
          {act.label}, <span className="num">{clock(act.doneAt_ms, timeZone)}</span>
          {lock && (
            <>
              , lock <span className="tag">{lock}</span>
            </>
          )}
          {plate && (
            <>
              , plate <span className="tag">{plate}</span>
            </>
          )}
          {typeof reading === "number" && (
            <>
              , read <span className="num">{reading}</span>
            </>
          )}
        </dd>
        <dt>There</dt>
        <dd>{there}</dd>
      </dl>
      {act.refusal?.settles ? (
        <>
          {mayHangToo && lock && settle("hangs too", "My lock hangs there too", `Lock ${lock} hangs there too`)}
          {settle("undone", "Mine is undone", lock ? `Lock ${lock} is off again` : "Mine does not count")}
        </>
      ) : (
        <button type="button" className="btn btn-outline" onClick={() => void forget(act.actId)}>
          I have read it; take it off this device
        </button>
      )}
    </section>
  );
}
