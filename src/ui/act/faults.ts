"use client";

import { createContext, useContext } from "react";

/** What the server found wrong with a field, under the name that it has there: "details.x_m". */
export type Fault = Readonly<{ field: string; message: string }>;

export const FaultContext = createContext<Readonly<{ form: string; faults: readonly Fault[] }>>({
  form: "",
  faults: [],
});

/** A server's name for a field fits the form's, whole or by its first or last part. */
export function fits(field: string, name: string): boolean {
  const parts = field.split(".");
  return name !== "" && (field === name || parts[0] === name || parts.at(-1) === name);
}

/** The fault of one field, with the id under which it stands. */
export function useFault(name: string | undefined): Readonly<{ id: string; message: string }> | null {
  const { form, faults } = useContext(FaultContext);
  const found = name === undefined ? undefined : faults.find((fault) => fits(fault.field, name));
  return found ? { id: `${form}-${name}-fault`.replace(/\s+/g, "-"), message: found.message } : null;
}
