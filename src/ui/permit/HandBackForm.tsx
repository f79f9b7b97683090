"use client";

import { ActForm } from "../act/ActForm";
import { WorkEnd, workEndOf } from "./WorkEnd";

export function HandBackForm({ permit }: Readonly<{ permit: string }>) {
  return (
    <ActForm
      act="permit.hand-back"
      label="Hand back"
      toInput={(fields) => ({ permit, ...workEndOf(fields) })}
      pin
      button="Hand back"
    >
      <WorkEnd />
    </ActForm>
  );
}
