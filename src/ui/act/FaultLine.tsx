import type { Fault } from "./faults";

/** What is wrong with a field, under it; nothing where nothing is. */
export function FaultLine({ fault }: { fault: (Pick<Fault, "message"> & { id: string }) | null | undefined }) {
  if (!fault) return null;
  return (
    <p id={fault.id} className="text-error text-sm font-medium">
      {fault.message}
    </p>
  );
}
