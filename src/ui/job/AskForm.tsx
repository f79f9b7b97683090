"use client";

import { Plus, X } from "lucide-react";
import { useState } from "react";
import { instantOf } from "../text/siteInstant";
import { ActForm } from "../act/ActForm";
import { useFault } from "../act/faults";
import { Field, TextField } from "../act/Field";
import { WhenField } from "../act/WhenField";

const HOW_WORDS: Readonly<Record<string, string>> = {
  open: "open it",
  touch: "touch it",
  enter: "enter it",
  hot: "hot work on it",
  near: "work near it",
};

type Props = Readonly<{
  places: readonly string[];
  people: readonly { id: string; name: string; roles: readonly string[] }[];
  hows: readonly string[];
  profiles: readonly { id: string; name: string }[];
  /** A job that is changed; a new one is asked for where there is none. */
  change?: AskedJob;
  /** The window that is offered to a new one: from now to the end of this shift, as the fields hold times. */
  window?: Readonly<{ from: string; to: string }>;
  /** The isolation procedure by which it is asked for. */
  procedure?: string;
  /** A job whose request is repeated: filled in, and each of it can be changed. */
  like?: AskedJob & Readonly<{ crew: readonly string[] }>;
}>;

export type AskedJob = Readonly<{
  job: string;
  title: string;
  work: string;
  faces: readonly Readonly<{ place: string; how: readonly string[]; carriers?: readonly string[]; reason?: string }>[];
  profile: string;
  longerThanShift: boolean;
  /** As the fields hold times. */
  from: string;
  to: string;
  holder: string;
}>;

export function AskForm({ places, people, hows, profiles, change, like, window, procedure }: Props) {
  const given = change ?? like;
  const [faces, setFaces] = useState(given?.faces.map((_, index) => index) ?? [0]);
  const holders = people.filter((person) => person.roles.includes("holder"));
  const isolators = people.filter(({ roles }) => roles.includes("isolator") && !roles.includes("holder"));
  return (
    <ActForm
      act={change ? "job.change" : "job.ask"}
      label={change ? "Change the request" : "New request"}
      button={change ? "Change it" : "Send the request"}
      tone="strong"
      then={change ? undefined : "/jobs/{job}/energies"}
      fixed={change ? { job: change.job } : like ? { like: like.job, ...(procedure ? { procedure } : {}) } : undefined}
      toInput={(fields) => readAsk(fields, given?.faces ?? [])}
    >
      <Field
        label="What is to be done"
        name="title"
        maxLength={120}
        defaultValue={given?.title}
        placeholder="Replace the mechanical seal of crude oil pump A"
      />
      <TextField label="In more words" name="work" rows={3} maxLength={2000} defaultValue={given?.work} />
      <fieldset data-field="faces" tabIndex={-1}>
        <legend className="mb-2 text-sm font-medium">
          Work locations: every place where people open, touch or enter something
        </legend>
        <datalist id="places">
          {places.map((place) => (
            <option key={place} value={place} />
          ))}
        </datalist>
        <ul className="space-y-3">
          {faces.map((face, index) => (
            <li key={face} className="flex flex-wrap items-center gap-x-5 gap-y-2">
              <input
                aria-label={`Work location ${index + 1}: tag, or tag.part`}
                name={`face-${face}`}
                list="places"
                autoComplete="off"
                defaultValue={given?.faces[face]?.place}
                className="input tag w-44"
                placeholder="P-204A"
              />
              {hows.map((how) => (
                <label key={how} className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    name={`how-${face}`}
                    value={how}
                    defaultChecked={given?.faces[face]?.how.includes(how) ?? false}
                  />
                  {HOW_WORDS[how] ?? how}
                </label>
              ))}
              {faces.length > 1 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-square btn-sm"
                  aria-label={`Remove work location ${index + 1}`}
                  onClick={() => setFaces(faces.filter((other) => other !== face))}
                >
                  <X aria-hidden size={16} />
                </button>
              )}
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="btn btn-ghost btn-sm mt-2"
          onClick={() => setFaces([...faces, Math.max(...faces) + 1])}
        >
          <Plus aria-hidden size={16} /> Another location
        </button>
      </fieldset>
      <div className="grid max-w-xl gap-4 sm:grid-cols-2">
        <WhenField
          label="Window starts"
          name="windowFrom_ms"

          defaultValue={given?.from || window?.from}
        />
        <WhenField label="Window ends" name="windowTo_ms" defaultValue={given?.to || window?.to} />
      </div>
      <div className="flex flex-wrap items-end gap-x-8 gap-y-4">
        <label className="flex w-64 flex-col gap-1">
          <span className="text-sm font-medium">Rules to plan by</span>
          <select name="profile" className="select w-full" defaultValue={given?.profile ?? profiles[0]?.id}>
            {profiles.map((profile) => (
              <option key={profile.id} value={profile.id}>
                {profile.name}
              </option>
            ))}
          </select>
        </label>
        <OneShift said={change?.longerThanShift} />
      </div>
      <label className="flex max-w-xs flex-col gap-1">
        <span className="text-sm font-medium">Permit holder, in charge of the party</span>
        <select name="holder" className="select w-full" defaultValue={given?.holder ?? ""}>
          <option value="" disabled>
            Choose
          </option>
          {holders.map((person) => (
            <option key={person.id} value={person.id}>
              {person.name}
            </option>
          ))}
          <optgroup label="Alone, by the short route">
            {isolators.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      {!change && (
        <fieldset>
          <legend className="mb-2 text-sm font-medium">Crew</legend>
          <div className="flex flex-wrap gap-x-6 gap-y-2">
            {people
              .filter((person) => person.roles.includes("worker") || person.roles.includes("holder"))
              .map((person) => (
                <label key={person.id} className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    name="crew"
                    value={person.id}
                    defaultChecked={like?.crew.includes(person.id)}
                  />
                  {person.name}
                </label>
              ))}
          </div>
        </fieldset>
      )}
    </ActForm>
  );
}

/** It decides how well the isolation has to hold: nothing stands for the answer beforehand. */
function OneShift({ said }: { said: boolean | undefined }) {
  const fault = useFault("longerThanShift");
  return (
    <fieldset data-field="longerThanShift" tabIndex={-1}>
      <legend className="mb-1 text-sm font-medium">Does the isolation outlast one shift?</legend>
      <div className="flex min-h-11 items-center gap-x-5">
        {[
          { value: "no", words: "No, off again within the shift" },
          { value: "yes", words: "Yes, others take it over" },
        ].map(({ value, words }) => (
          <label key={value} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              className="radio radio-sm"
              name="longerThanShift"
              value={value}
              defaultChecked={said === undefined ? false : said === (value === "yes")}
            />
            {words}
          </label>
        ))}
      </div>
      {fault && <p className="text-error text-sm font-medium">{fault.message}</p>}
    </fieldset>
  );
}

/** Carriers that were left out of a work face, with the reason, go with its place. */
function readAsk(fields: FormData, before: AskedJob["faces"]): Record<string, unknown> {
  const faces = [...fields.keys()]
    .filter((key) => key.startsWith("face-"))
    .map((key) => {
      const place = String(fields.get(key)).trim();
      const { carriers, reason } = before.find((face) => face.place === place) ?? {};
      return { place, how: fields.getAll(key.replace("face", "how")), ...(carriers ? { carriers, reason } : {}) };
    });
  const time = (name: string) => instantOf(String(fields.get(name) ?? ""));
  return {
    title: fields.get("title"),
    work: fields.get("work"),
    faces,
    profile: fields.get("profile"),
    ...(fields.get("longerThanShift") === null ? {} : { longerThanShift: fields.get("longerThanShift") === "yes" }),
    windowFrom_ms: time("windowFrom_ms"),
    windowTo_ms: time("windowTo_ms"),
    holder: fields.get("holder") ?? "",
    crew: fields.getAll("crew"),
  };
}
