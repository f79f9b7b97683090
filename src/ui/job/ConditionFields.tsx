"use client";

import { Field, TextField, Tick } from "../act/Field";

export type Conditions = Readonly<{
  weather: string;
  wind_m_s: number | null;
  thunder: boolean;
  ice: boolean;
  tools: readonly string[];
  inspected: readonly string[];
  lifts: readonly Readonly<{ what: string; mass_kg: number; people: number; place: string }>[];
}>;

/** Weather, tools and lifts of a job, as they are asked. */
export function ConditionFields({ said }: { said: Conditions | null }) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <Field label="Weather" name="weather" autoComplete="off" defaultValue={said?.weather} />
      <div className="flex flex-wrap items-end gap-x-5">
        <div className="w-24">
          <Field
            label="Wind, m/s"
            name="wind_m_s"
            inputMode="decimal"
            className="num"
            defaultValue={said?.wind_m_s ?? ""}
          />
        </div>
        <Tick label="Thunder" name="thunder" defaultChecked={said?.thunder} />
        <Tick label="Ice" name="ice" defaultChecked={said?.ice} />
      </div>
      <TextField
        label="Tools and gear, one a line"
        name="tools"
        rows={2}
        className="min-h-16"
        defaultValue={said?.tools.join("\n")}
      />
      <TextField
        label="Of these, looked at and sound"
        name="inspected"
        rows={2}
        className="min-h-16"
        defaultValue={said?.inspected.join("\n")}
      />
      <div className="sm:col-span-2">
        <TextField
          label="Lifts by hand, one a line"
          name="lifts"
          rows={2}
          className="min-h-16"
          hint="What, kg, how many people, where. Above 23 kg for each person it is too much."
          defaultValue={said?.lifts
            .map(({ what, mass_kg, people, place }) => `${what}, ${mass_kg} kg, ${people}, ${place}`)
            .join("\n")}
        />
      </div>
    </div>
  );
}

/** What was said of them, as an act takes it; null where nothing was. */
export function conditionsIn(fields: FormData): Record<string, unknown> | null {
  const text = (name: string) => String(fields.get(name) ?? "");
  const said = {
    weather: text("weather"),
    wind_m_s: text("wind_m_s"),
    thunder: fields.get("thunder") === "on",
    ice: fields.get("ice") === "on",
    tools: text("tools"),
    inspected: text("inspected"),
    lifts: text("lifts"),
  };
  return Object.values(said).some((value) => (typeof value === "boolean" ? value : value.trim() !== "")) ? said : null;
}
