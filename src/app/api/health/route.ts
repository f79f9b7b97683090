import { ENGINE_VERSION } from "@/core/version";
import { database } from "@/server/db/database";
import { brokenAt, ledgerHead } from "@/server/ledger/append";
import { headFilePath } from "@/server/ledger/headFile";
import { backupAge_h } from "@/server/runtime/backups";
import { now_ms } from "@/server/runtime/clock";
import { isDiskFull } from "@/server/runtime/reserve";

/** One is made every hour; two that failed are a fault. */
const BACKUP_OLD_h = 2.5;

/**
 * For whoever watches the server: whether it answers, whether the record goes on where it ended, and whether there is room.
 * Says nothing of the site.
 */
export function GET(): Response {
  const { seq, hash } = ledgerHead(database());
  const broken = brokenAt({ seq, hash }, headFilePath());
  const full = isDiskFull();
  const age_h = backupAge_h(now_ms());
  const isOld = age_h !== null && age_h > BACKUP_OLD_h;
  const ok = broken === null && !full && !isOld;
  const backup = age_h === null ? "not set up" : isOld ? "missing or old" : "recent";
  return Response.json(
    { ok, engine: ENGINE_VERSION, record: broken ?? "goes on", disk: full ? "full" : "has room", backup },
    { status: ok ? 200 : 503, headers: { "cache-control": "no-store" } },
  );
}
