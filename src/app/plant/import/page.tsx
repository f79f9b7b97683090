import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { ImportForm } from "./ImportForm";
import { AREA_COLUMNS, ITEM_COLUMNS, LINK_COLUMNS } from "@/core/plant/readPlantCsv";
import { revisions } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock } from "@/ui/text/when";

export const metadata: Metadata = { title: "Import a register" };

export default async function ImportPage() {
  const person = await requirePerson();
  const past = revisions();
  const timeZone = siteTimeZone();
  return (
    <div className="grid max-w-6xl gap-12 px-4 py-8 md:grid-cols-[1.2fr_1fr] md:px-8">
      <section>
        <p className="mb-1">
          <Link href="/plant" className="link">
            Plant register
          </Link>
        </p>
        <h1 className="mb-4 text-2xl font-semibold tracking-tight">Import a register</h1>
        {person.roles.includes("coordinator") ? (
          <ImportForm />
        ) : (
          <p>Only a coordinator may import a plant register. Ask one to do it.</p>
        )}
        <h2 className="mt-10 mb-2 font-semibold">Revisions</h2>
        {past.length === 0 && <p>None yet.</p>}
        <ul className="space-y-1">
          {past.map((revision) => (
            <li key={revision.revision}>
              <span className="num mr-3">{revision.revision}</span>
              {revision.files}, <span className="num">{revision.items}</span> items, {revision.by},{" "}
              {dayAndClock(revision.at, timeZone)}
            </li>
          ))}
        </ul>
      </section>
      <section className="text-sm">
        <h2 className="mb-2 text-base font-semibold">What the files hold</h2>
        <p className="mb-3">
          One workbook (xlsx) with sheets named items, links and perhaps areas; or{" "}
          <span className="tag">items.csv</span> and <span className="tag">links.csv</span> together, perhaps with{" "}
          <span className="tag">areas.csv</span>; or one <span className="tag">plant.json</span>. Everything is checked
          and shown first; nothing is stored unless all of it is right.
        </p>
        <p className="mb-1 font-medium">Columns of items.csv</p>
        <p className="tag mb-3 whitespace-normal">{ITEM_COLUMNS.join(", ")}</p>
        <p className="mb-1 font-medium">Columns of links.csv</p>
        <p className="tag mb-3 whitespace-normal">{LINK_COLUMNS.join(", ")}</p>
        <p className="mb-1 font-medium">Columns of areas.csv, where there is one</p>
        <p className="tag mb-3 whitespace-normal">{AREA_COLUMNS.join(", ")}</p>
        <p>
          Parts of a list in one cell are parted by semicolons. Leave a cell empty when nothing is known: the engine
          then assumes the worse.
        </p>
      </section>
    </div>
  );
}
