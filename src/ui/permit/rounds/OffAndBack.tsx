"use client";

import { ActForm } from "../../act/ActForm";
import { Tick } from "../../act/Field";
import { WorkEnd, workEndOf } from "../WorkEnd";

type Copy = Readonly<{ copy: number; where: string }>;

/** The last one off, the permit handed back and its copies: one signature by the holder, each thing of it ticked. */
export function OffAndBack({ permit, copies }: Readonly<{ permit: string; copies: readonly Copy[] }>) {
  return (
    <ActForm
      act="permit.sign-off"
      label="Sign off and hand back"
      toRound={(fields) => {
        const isOff = fields.get("off") === "on";
        const isClear = fields.get("clear") === "on";
        const back = copies.filter(({ copy }) => fields.get(`copy ${copy}`) === "on");
        return {
          round: "off and handed back",
          entries:
            isOff && isClear
              ? [
                  { type: "permit.sign-off", input: { permit } },
                  { type: "permit.hand-back", input: { permit, ...workEndOf(fields) } },
                  ...back.map(({ copy }) => ({ type: "permit.return-copy", input: { permit, copy } })),
                ]
              : [],
        };
      }}
      pin
      button="Sign off, and hand back"
      tone="strong"
    >
      <div>
        <Tick name="off" label="I am clear, my tools are out, my own lock is off" />
        <Tick name="clear" label="Work stops here, everybody is accounted for, the place is clean" />
        {copies.map(({ copy, where }) => (
          <Tick key={copy} name={`copy ${copy}`} label={`Copy ${copy} from ${where} is back in my hand`} />
        ))}
      </div>
      <WorkEnd />
    </ActForm>
  );
}
