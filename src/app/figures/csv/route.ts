import Papa from "papaparse";
import { database } from "@/server/db/database";
import { figureRows, siteFigures } from "@/server/figures/siteFigures";
import { currentPerson } from "@/server/people/session";
import { mayRead } from "@/core/people/mayRead";
import { whoReads } from "@/core/words/en/reading";
import { now_ms } from "@/server/runtime/clock";
import { daysOf } from "../period";

const DAY_MS = 86_400_000;

/** The figures of a time as a table, for a spreadsheet. */
export async function GET(request: Request): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response("Sign in first.", { status: 401 });
  if (!mayRead("figures", person)) return new Response(whoReads("figures"), { status: 403 });
  const days = daysOf(new URL(request.url).searchParams.get("days"));
  const now = now_ms();
  const rows = figureRows(siteFigures(database(), now - days * DAY_MS, now));
  return new Response(Papa.unparse([...rows], { escapeFormulae: true, newline: "\r\n" }), {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="figures-${days}-days.csv"`,
      "cache-control": "no-store",
    },
  });
}
