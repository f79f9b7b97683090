"use client";

import type { CrewAtBox } from "./crewAtBox";
import { ActForm } from "../act/ActForm";

type Props = Readonly<{
  view: Pick<CrewAtBox, "number" | "crew">;
  round: string;
  lead: string;
  signOut: () => Promise<void>;
}>;

/** The leader takes the screen away from the box; who is still on is said before. */
export function LeaveBox({ view, round, lead, signOut }: Props) {
  const on = view.crew.filter((one) => one.on !== null);
  return (
    <div className="space-y-3">
      <h2 className="text-xl font-semibold">End the round</h2>
      <p className="max-w-prose">
        {on.length === 0
          ? "Nobody is on."
          : `Still on, with their locks on the box: ${on.map(({ name }) => name).join(", ")}. They sign off here in another round, or on their own devices, before they leave the site.`}
      </p>
      <ActForm
        act="crew.end"
        label="End the crew round"
        fixed={{ crew: round }}
        pin
        button={`${lead} ends it`}
        tone="strong"
        then={`/permits/${view.number}`}
      />
      <form action={signOut} className="border-base-300 border-t pt-3">
        <p className="mb-2 text-sm">
          Or leave this screen to nobody: {lead} is signed out here, and the round is over for it.
        </p>
        <button type="submit" className="btn btn-outline">
          Sign out here
        </button>
      </form>
    </div>
  );
}
