/** Runs once when the server starts, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  // What this server writes nobody else of this machine reads.
  process.umask(0o077);
  const { settingFaults } = await import("./server/runtime/settings");
  const { log } = await import("./server/runtime/log");
  const faults = settingFaults(process.env);
  if (faults.length > 0) {
    console.error(`This server is not set up as it can run, and ends.\n${faults.join("\n")}`);
    process.exit(1);
  }
  const { isReader, onSessionSeen } = await import("./server/runtime/reader");
  const { startWorkers } = await import("./server/runtime/workers");
  // A reader draws pages beside the process that does everything else, which has seen to the rest.
  if (isReader()) return startWorkers();
  const { dataFolder } = await import("./server/db/database");
  const { holdFolder } = await import("./server/runtime/folderLock");
  if (!holdFolder(dataFolder())) {
    console.error(`Another server runs on ${dataFolder()}: two would not hear of each other's alarms. This one ends.`);
    process.exit(1);
  }
  const { openKey } = await import("./server/people/secretKey");
  const { areTestHashes } = await import("./server/people/secrets");
  const { database } = await import("./server/db/database");
  const keyFault = areTestHashes() ? null : openKey(database());
  if (keyFault !== null) {
    console.error(`${keyFault} This server ends.`);
    process.exit(1);
  }
  const { isDemoData } = await import("./server/ledger/isDemoData");
  if (process.env.LANTERN_DEMO === "1" && !isDemoData()) {
    console.error(`${dataFolder()} holds a site's own data, and the demo's sign-in is not for it. This server ends.`);
    process.exit(1);
  }
  const { keepReserve } = await import("./server/runtime/reserve");
  if (!keepReserve(dataFolder())) {
    log().error({ folder: dataFolder() }, "the disk has little room: only stopping work is written until it has more");
  }
  startWorkers();
  const { seen } = await import("./server/people/signIn");
  onSessionSeen((session) => seen(database(), session, Date.now()));
  // Before anybody looks: a permit is not stopped for a judgement that only an upgrade has left out.
  const { judgePending } = await import("./server/isolation/verdicts");
  await judgePending().catch((error: unknown) =>
    log().error({ err: error }, "judging isolations on today's register failed"),
  );
  const { startTicker } = await import("./server/permit/ticker");
  startTicker();
  const { startBackups } = await import("./server/runtime/backups");
  startBackups();
  log().info({ folder: dataFolder() }, "started");
}
