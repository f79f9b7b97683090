"use client";

export type Told = Readonly<{ who: string; password?: string; pin?: string }>;

/** What is shown once: whoever wrote it down puts it away. */
export function Once({ told, putAway }: { told: Told; putAway: () => void }) {
  return (
    <div role="status" className="border-warning bg-base-200 my-3 max-w-md border-l-4 px-4 py-3">
      <p>
        Hand these to <strong>{told.who}</strong> in person. They are shown once and kept nowhere.
      </p>
      <dl className="my-2 grid w-fit grid-cols-[auto_1fr] gap-x-4">
        <dt>Password</dt>
        <dd className="tag">{told.password}</dd>
        <dt>PIN</dt>
        <dd className="tag">{told.pin}</dd>
      </dl>
      <button type="button" className="btn btn-outline" onClick={putAway}>
        Written down
      </button>
    </div>
  );
}
