"use client";

import { ActForm } from "../../act/ActForm";
import { TextField } from "../../act/Field";
import { copiesIn } from "../IssueForm";
import { LookedAt, type Open } from "../TickForm";

type Props = Readonly<{
  permit: string;
  /** The permit was checked only: it is authorised by the same signature. */
  authorise: boolean;
  /** What somebody has to look at on the spot; nothing of it is ticked beforehand. */
  open: readonly Open[];
}>;

/** On the spot: what was looked at, the authorisation where it may be given here, and the issue. */
export function OnTheSpot({ permit, authorise, open }: Props) {
  return (
    <ActForm
      act="permit.issue"
      label="Issue on the spot"
      toRound={(fields) => {
        const asks = fields.getAll("asks");
        return {
          round: "issued on the spot",
          entries: [
            ...(authorise ? [{ type: "permit.authorise", input: { permit } }] : []),
            ...(asks.length > 0 ? [{ type: "permit.tick", input: { permit, asks, words: "" } }] : []),
            { type: "permit.issue", input: { permit, copies: copiesIn(fields) } },
          ],
        };
      }}
      pin
      button={authorise ? "Authorise and issue" : "Issue the permit"}
      tone="strong"
    >
      {open.length > 0 && <LookedAt open={open} />}
      <TextField
        label="Where its copies hang, one a line"
        name="copies"
        rows={2}
        hint="Each is brought back before it is closed."
      />
    </ActForm>
  );
}
