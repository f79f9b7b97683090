/** How long an answer is waited for, in ms: a network that swallows requests must not leave a form sending for ever. */
export const ANSWER_WITHIN_MS = { act: 30_000, photo: 60_000, file: 180_000 } as const;

/**
 * A request that is given up after its time.
 * @throws as `fetch` does, and when the time is over. It may have arrived all the same.
 */
export async function fetchInTime(
  address: string,
  init: Omit<RequestInit, "signal">,
  within_ms: number,
): Promise<Response> {
  // eslint-disable-next-line no-restricted-globals -- the one place where it is called, with its time limit
  return fetch(address, { ...init, signal: AbortSignal.timeout(within_ms) });
}
