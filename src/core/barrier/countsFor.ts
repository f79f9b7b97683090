import { onceFor } from "../onceFor";
import { isIsolating } from "../plant/kinds";
import type { Device, Item } from "../plant/plant";
import type { Grade } from "../requirement/grades";
import { narrowed, type BarrierField } from "./pairs";

/** Which devices can give a grade: any, those that take a lock, or those that isolate and take one. */
export const DEVICE_CLASSES = ["any", "lockable", "isolating"] as const;
export type DeviceClass = (typeof DEVICE_CLASSES)[number];

const CLASS_OF: Readonly<Partial<Record<Grade, DeviceClass>>> = {
  separated: "lockable",
  "locked isolating device": "isolating",
  "locked switch": "lockable",
  restrained: "lockable",
  "drive isolated only": "lockable",
  "shutter locked and surveyed": "lockable",
};

/** Credit needs a lock: what says locked, separated or restrained is not given to what cannot be locked. */
export function classFor(grade: Grade | null): DeviceClass {
  return (grade === null ? undefined : CLASS_OF[grade]) ?? "any";
}

export function isOfClass(item: Item & { device?: Device }, kind: DeviceClass): boolean {
  switch (kind) {
    case "any":
      return true;
    case "lockable":
      return item.device?.lockable === true;
    case "isolating":
      return item.device?.lockable === true && isIsolating(item.kind);
  }
}

/** The same field with only the devices of a class to count on, made once for each field. */
export function ofClass(field: BarrierField, kind: DeviceClass): BarrierField {
  switch (kind) {
    case "any":
      return field;
    case "lockable":
      return lockableOf(field);
    case "isolating":
      return isolatingOf(field);
  }
}

const lockableOf = onceFor((field: BarrierField) => only(field, "lockable"));
const isolatingOf = onceFor((field: BarrierField) => only(field, "isolating"));

function only(field: BarrierField, kind: DeviceClass): BarrierField {
  return narrowed(field, (item) => isOfClass(field.graph.plant.items[item]!, kind));
}
