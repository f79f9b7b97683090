"use client";

export default function ErrorPage({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <div className="px-4 py-16 md:px-8" role="alert">
      <h1 className="text-2xl font-semibold">This page failed</h1>
      <p className="mt-2 max-w-prose">
        Nothing was changed by the failure, and what was recorded before is safe. Try again; if it fails again, go on
        from paper and tell the person who runs this server{error.digest ? `, with the number ${error.digest}` : ""}.
      </p>
      <button type="button" className="btn btn-primary mt-4" onClick={reset}>
        Try again
      </button>
    </div>
  );
}
