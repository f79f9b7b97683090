import { ENGINE_VERSION } from "@/core/version";
import { database } from "@/server/db/database";
import { brokenAt, ledgerHead } from "@/server/ledger/append";
import { headFilePath } from "@/server/ledger/headFile";
import { isDiskFull } from "@/server/runtime/reserve";

/**
 * For whoever watches the server: whether it answers, whether the record goes on where it ended, and whether there is room.
 * Says nothing of the site.
 */
export function GET(): Response {
  const { seq, hash } = ledgerHead(database());
  const broken = brokenAt({ seq, hash }, headFilePath());
  const full = isDiskFull();
  const ok = broken === null && !full;
  return Response.json(
    { ok, engine: ENGINE_VERSION, record: broken ?? "goes on", disk: full ? "full" : "has room" },
    { status: ok ? 200 : 503, headers: { "cache-control": "no-store" } },
  );
}
