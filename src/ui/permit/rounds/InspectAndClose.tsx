"use client";

import { ActForm } from "../../act/ActForm";
import { TextField, Tick } from "../../act/Field";

type Copy = Readonly<{ copy: number; where: string }>;

/** The issuer inspects the place and closes the permit: one signature, with what was found. */
export function InspectAndClose({ permit, copies }: Readonly<{ permit: string; copies: readonly Copy[] }>) {
  return (
    <ActForm
      act="permit.inspect"
      label="Inspect and close"
      toRound={(fields) => ({
        round: "inspected and closed",
        entries: [
          ...copies
            .filter(({ copy }) => fields.get(`copy ${copy}`) === "on")
            .map(({ copy }) => ({ type: "permit.return-copy", input: { permit, copy } })),
          { type: "permit.inspect", input: { permit, words: String(fields.get("words") ?? "") } },
          { type: "permit.close", input: { permit } },
        ],
      })}
      pin
      button="Inspected; close the permit"
      tone="strong"
    >
      <TextField label="What you found" name="words" rows={2} />
      {copies.length > 0 && (
        <div>
          {copies.map(({ copy, where }) => (
            <Tick key={copy} name={`copy ${copy}`} label={`Copy ${copy} from ${where} is back in my hand`} />
          ))}
        </div>
      )}
    </ActForm>
  );
}
