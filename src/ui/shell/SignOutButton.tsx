"use client";

/** Signing out also takes the pages along that this device kept for working without a network. */
export function SignOutButton() {
  return (
    <button
      className="btn btn-ghost"
      type="submit"
      onClick={() => navigator.serviceWorker?.controller?.postMessage("forget")}
    >
      Sign out
    </button>
  );
}
