"use client";

import { useState } from "react";
import { INSTRUMENT_KINDS } from "../../core/gear/instrumentKinds";
import { ActForm } from "../act/ActForm";
import { Field, SelectField } from "../act/Field";

type Told = Readonly<{ id: string; token: string }>;

/** Shown once: whoever set the instrument up puts it away. */
function Token({ told, putAway }: { told: Told; putAway: () => void }) {
  return (
    <div role="status" className="border-warning bg-base-200 my-3 max-w-xl border-l-4 px-4 py-3">
      <p>
        The token of <span className="tag">{told.id}</span>. It is shown once and kept nowhere: put it into the
        instrument.
      </p>
      <p className="tag my-2 break-all whitespace-normal">{told.token}</p>
      <button type="button" className="btn btn-outline" onClick={putAway}>
        It is in
      </button>
    </div>
  );
}

export function EnterInstrument() {
  const [told, setTold] = useState<Told | null>(null);
  const [id, setId] = useState("");
  return (
    <details>
      <summary className="cursor-pointer py-1 font-medium">Enter one that sends by itself</summary>
      {told && <Token told={told} putAway={() => setTold(null)} />}
      <ActForm
        act="instrument.enter"
        label="Enter an instrument that sends"
        pin
        button="Enter it"
        onOnce={({ token = "" }) => setTold({ id, token })}
      >
        <div className="grid max-w-4xl gap-3 sm:grid-cols-3">
          <Field label="Its number" name="id" className="tag" maxLength={20} onChange={(e) => setId(e.target.value)} />
          <SelectField label="What it is" name="kind">
            {INSTRUMENT_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {kind}
              </option>
            ))}
          </SelectField>
          <Field
            label="Gases it reads besides"
            name="gases"
            hint="of a gas detector, beside oxygen and what burns; parted by commas"
            maxLength={400}
          />
        </div>
      </ActForm>
    </details>
  );
}

export function InstrumentToken({ id, isRevoked }: { id: string; isRevoked: boolean }) {
  const [told, setTold] = useState<Told | null>(null);
  return (
    <details>
      <summary className="cursor-pointer py-1">{isRevoked ? "Let it send again" : "Change"}</summary>
      {told && <Token told={told} putAway={() => setTold(null)} />}
      <ActForm
        act="instrument.new-token"
        label={`New token for ${id}`}
        fixed={{ id }}
        pin
        button="Make a new token"
        compact
        onOnce={({ token = "" }) => setTold({ id, token })}
      />
      {!isRevoked && (
        <div className="mt-3">
          <ActForm act="instrument.revoke" label={`Shut ${id} out`} fixed={{ id }} pin button="Shut it out" compact>
            <Field label="Why" name="words" maxLength={300} className="min-w-48" />
          </ActForm>
        </div>
      )}
    </details>
  );
}
