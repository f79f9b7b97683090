"use client";

import { ActForm } from "../act/ActForm";

/** Whoever leads or issued the work signs for standing by; from then on this screen is the crew's. */
export function BeginCrew({ permit, button }: { permit: string; button: string }) {
  return <ActForm act="crew.begin" label="Begin a crew round" fixed={{ permit }} pin button={button} tone="strong" />;
}
