"use client";

import { ActForm } from "../../act/ActForm";
import { SignOnFields, signOnInput } from "../../locks/SignOnForm";

type Props = Parameters<typeof SignOnFields>[0];

/** The holder accepts, and is the first one on: one signature at the box. */
export function AcceptAndOn(props: Props) {
  return (
    <ActForm
      act="permit.accept"
      label="Accept and sign on"
      toRound={(fields) => ({
        round: "accepted and on",
        entries: [
          { type: "permit.accept", input: { permit: props.permit } },
          { type: "permit.sign-on", input: signOnInput(fields, props) },
        ],
      })}
      pin
      button="Accept, and sign on"
      tone="strong"
    >
      <SignOnFields {...props} />
    </ActForm>
  );
}
