"use client";

import { ActForm } from "../act/ActForm";
import { TextField, Tick } from "../act/Field";

type Props = Readonly<{
  isolation: string;
  /** The coordinator's own locks on its boxes: they come off by the same signature, each of them ticked. */
  own: readonly Readonly<{ box: string; lock: string }>[];
  /** Work that was handed back part done. */
  left: readonly Readonly<{ permit: string; words: string }>[];
}>;

export function StartRestoring({ isolation, own, left }: Props) {
  const safe = (fields: FormData) => (left.length > 0 ? { leftSafe: String(fields.get("leftSafe") ?? "") } : {});
  const off = (fields: FormData) => own.filter(({ box, lock }) => fields.get(`off ${box} ${lock}`) === "on");
  return (
    <ActForm
      act="return.start"
      label="Start restoring"
      toInput={(fields) => ({ isolation, ...safe(fields) })}
      {...(own.length > 0
        ? {
            toRound: (fields: FormData) => ({
              round: "restoring begun" as const,
              entries: [
                ...off(fields).map((one) => ({ type: "box.take-off", input: one })),
                { type: "return.start", input: { isolation, ...safe(fields) } },
              ],
            }),
          }
        : {})}
      pin
      button="Start restoring"
      tone="strong"
    >
      {left.length > 0 && (
        <>
          <p>
            Work is left to do:{" "}
            {left.map(({ permit, words }, i) => (
              <span key={permit}>
                {i > 0 && "; "}
                <span className="tag">{permit}</span> {words}
              </span>
            ))}
            . Write a permit for it, or put the plant back as it is:
          </p>
          <TextField label="How it was made safe to be put back" name="leftSafe" rows={2} />
        </>
      )}
      {own.length > 0 && (
        <div>
          {own.map(({ box, lock }) => (
            <Tick key={`${box} ${lock}`} name={`off ${box} ${lock}`} label={`My lock ${lock} is off box ${box}`} />
          ))}
        </div>
      )}
    </ActForm>
  );
}
