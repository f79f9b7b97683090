"use client";

import { ActForm } from "../act/ActForm";
import { Tick } from "../act/Field";

type Props = Readonly<{
  isolation: string;
  /** The coordinator's own locks on its boxes: they come off by the same signature, each of them ticked. */
  own: readonly Readonly<{ box: string; lock: string }>[];
}>;

export function StartRestoring({ isolation, own }: Props) {
  const off = (fields: FormData) => own.filter(({ box, lock }) => fields.get(`off ${box} ${lock}`) === "on");
  return (
    <ActForm
      act="return.start"
      label="Start restoring"
      fixed={{ isolation }}
      {...(own.length > 0
        ? {
            toRound: (fields: FormData) => ({
              round: "restoring begun" as const,
              entries: [
                ...off(fields).map((one) => ({ type: "box.take-off", input: one })),
                { type: "return.start", input: { isolation } },
              ],
            }),
          }
        : {})}
      pin
      button="Start restoring"
      tone="strong"
    >
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
