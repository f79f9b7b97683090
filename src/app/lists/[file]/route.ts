import Papa from "papaparse";
import { asking, opens } from "@/server/access/asking";
import { database } from "@/server/db/database";
import { dayOf, LISTS, listTable, mayTakeOut } from "@/server/lists/lists";
import { now_ms } from "@/server/runtime/clock";
import { Busy, heavy } from "@/server/runtime/workers";

const XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

/** A register of the site as a table or a workbook, as it stands now. */
export async function GET(request: Request, { params }: { params: Promise<{ file: string }> }): Promise<Response> {
  const asker = await asking(request);
  if (asker === null) return new Response("Sign in first.", { status: 401 });
  if (!opens(asker, "lists")) return new Response("This token opens no lists.", { status: 403 });
  const { person } = asker;
  const { file } = await params;
  const [name, ending] = file.split(".");
  const list = LISTS.find((one) => one === name);
  if (list === undefined || (ending !== "csv" && ending !== "xlsx")) {
    return new Response(`There is no ${file}; ${LISTS.join(", ")}, each as .csv or .xlsx.`, { status: 404 });
  }
  if (!mayTakeOut(list, person)) {
    const who = list === "people" ? "a coordinator of the site's own" : "the site's own people";
    return new Response(`This list is taken out by ${who} only.`, { status: 403 });
  }
  const table = listTable(database(), list, now_ms());
  const headers = {
    "content-type": ending === "csv" ? "text/csv; charset=utf-8" : XLSX,
    "content-disposition": `attachment; filename="${list}-${dayOf(now_ms())}.${ending}"`,
    "cache-control": "no-store",
  };
  // What a spreadsheet would take for a formula is marked as words.
  if (ending === "csv")
    return new Response(Papa.unparse(table as unknown[][], { escapeFormulae: true, newline: "\r\n" }), { headers });
  try {
    return new Response(new Uint8Array(await heavy("workbook", { [list]: table })), { headers });
  } catch (error) {
    if (error instanceof Busy) return new Response(error.message, { status: 503 });
    throw error;
  }
}
