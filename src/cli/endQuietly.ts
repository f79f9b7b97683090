/** Whoever reads the answer may have read enough, as `head` has: that is no failure. */
export function endQuietly(): void {
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code === "EPIPE") process.exit(0);
    throw error;
  });
}
