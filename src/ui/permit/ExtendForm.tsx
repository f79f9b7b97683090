"use client";

import { instantOf } from "../text/siteInstant";
import { ActForm } from "../act/ActForm";
import { TextField, Tick } from "../act/Field";
import { WhenField } from "../act/WhenField";

type Props = Readonly<{
  permit: string;
  /** The latest end that the rules allow, as people read it. */
  latest: string;
  on: readonly Readonly<{ id: string; name: string }>[];
  hanging: readonly Readonly<{ copy: number; where: string }>[];
}>;

/** A later end, once: everybody who is on is asked, every copy says it, nobody and nothing ticked beforehand. */
export function ExtendForm({ permit, latest, on, hanging }: Props) {
  return (
    <ActForm
      act="permit.extend"
      label="Extend"
      toInput={(fields) => ({
        permit,
        until_ms: instantOf(String(fields.get("until_ms") ?? "")),
        words: fields.get("words"),
        stillOn: on.filter(({ id }) => fields.get(`on ${id}`) === "on").map(({ id }) => id),
        marked: hanging.filter(({ copy }) => fields.get(`copy ${copy}`) === "on").map(({ copy }) => copy),
      })}
      pin
      button="Extend the permit"
    >
      <WhenField label="New end" name="until_ms" hint={`${latest} at the latest`} />
      <TextField label="What you found" name="words" rows={2} />
      {on.length + hanging.length > 0 && (
        <div>
          {on.map(({ id, name }) => (
            <Tick key={id} name={`on ${id}`} label={`${name} is still on, and knows the new end`} />
          ))}
          {hanging.map(({ copy, where }) => (
            <Tick key={copy} name={`copy ${copy}`} label={`The new end is on copy ${copy}, ${where}`} />
          ))}
        </div>
      )}
    </ActForm>
  );
}
