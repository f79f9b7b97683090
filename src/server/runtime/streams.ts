/** A browser holds one for each of its open pages; more than this from one sign-in is no browser of ours. */
export const MOST_OF_ONE = 12;
/** Every stream is a socket, and the machine has only so many. */
export const MOST_OF_ALL = 2000;

type Stream = Readonly<{ owner: string; end: () => void }>;
const holder = globalThis as { heavyLanternStreams?: Set<Stream> };

function open(): Set<Stream> {
  if (holder.heavyLanternStreams) return holder.heavyLanternStreams;
  const streams = (holder.heavyLanternStreams = new Set<Stream>());
  // A server that is told to stop waits for what is open.
  const endAll = () => [...streams].forEach(({ end }) => end());
  process.on("SIGTERM", endAll);
  process.on("SIGINT", endAll);
  return streams;
}

/**
 * Counts an open stream of a session until it is let go. Where there are too many the oldest ends, first that of the same
 * session: a page that is still looked at comes back by itself.
 */
export function keepStream(owner: string, end: () => void): () => void {
  const streams = open();
  const own = [...streams].filter((one) => one.owner === owner);
  if (own.length >= MOST_OF_ONE) own[0]!.end();
  else if (streams.size >= MOST_OF_ALL) [...streams][0]!.end();
  const stream = { owner, end };
  streams.add(stream);
  return () => streams.delete(stream);
}
