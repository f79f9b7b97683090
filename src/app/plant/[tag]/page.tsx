import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { storedQuantity, wayToMakeHarmless } from "@/core/energy/storedEnergy";
import { itemSheet } from "@/server/plant/register";
import { figure } from "@/core/units/format";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { Carrier } from "@/ui/text/Carrier";
import { energy } from "@/ui/text/energy";
import { dayAndClock } from "@/ui/text/when";

type Params = { params: Promise<{ tag: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: decodeURIComponent((await params).tag) };
}

export default async function ItemPage({ params }: Params) {
  const { units } = await requirePerson();
  const tag = decodeURIComponent((await params).tag);
  const sheet = itemSheet(tag);
  if (sheet === null) notFound();
  const { item, links, heldBy } = sheet;
  const timeZone = siteTimeZone();
  return (
    <div className="max-w-5xl px-4 py-4 md:px-5">
      <p className="mb-1">
        <Link href="/plant" className="link">
          Plant register
        </Link>
      </p>
      <h1 className="text-2xl font-semibold tracking-tight">
        <span className="tag mr-4">{item.tag}</span>
        {item.name}
      </h1>
      {!sheet.present && <p className="border-error mt-2 border-l-4 px-3 py-1">No longer in the register.</p>}
      {heldBy.map((hold) => (
        <p key={hold.lock} className="border-accent mt-2 border-l-4 px-3 py-1">
          Held by isolation <span className="tag">{hold.isolation}</span> with lock{" "}
          <span className="tag">{hold.lock}</span>, hung by {hold.by} on {dayAndClock(hold.at, timeZone)}.
        </p>
      ))}
      <dl className="mt-6 grid grid-cols-[10rem_1fr] gap-x-6 gap-y-2">
        <Row label="Kind">{item.kind}</Row>
        <Row label="Area">{item.area || "not given"}</Row>
        <Row label="Level">
          {item.level_m === undefined ? "not given" : <span className="num">{item.level_m} m</span>}
        </Row>
        <Row label="Plate">{item.plate ? <span className="tag">{item.plate}</span> : "as the tag"}</Row>
        {item.parts.length > 0 && <Row label="Parts">{item.parts.join(", ")}</Row>}
        {item.feeder && (
          <Row label="Fed by">
            <TagLink tag={item.feeder} />
          </Row>
        )}
        {item.contents && (
          <Row label="Contents">
            {item.contents.fluid}
            {item.contents.temperature_C !== undefined && (
              <span className="num">, {figure(item.contents.temperature_C, "temperature", units)}</span>
            )}
            {item.contents.pressure_Pa !== undefined && (
              <span className="num">, {figure(item.contents.pressure_Pa, "gauge", units)} gauge</span>
            )}
            {item.contents.hazards.length > 0 && <strong>, {item.contents.hazards.join(", ")}</strong>}
          </Row>
        )}
        {item.sources.map((source, index) => (
          <Row key={index} label={source.feeding ? "Supplies" : "Stores"}>
            <Carrier name={source.carrier} />
            {!source.disconnectable && " and cannot be disconnected"}
            {source.regenerating && ", comes back by itself"}
            {source.stored && (
              <span className="block">
                {energy(storedQuantity(source.stored), units)}. {wayToMakeHarmless(source.stored)}.
              </span>
            )}
          </Row>
        ))}
        {item.device && (
          <Row label="As a device">
            <span className="flex flex-wrap gap-x-4">
              {item.device.stops.map((carrier) => (
                <Carrier key={carrier} name={carrier} />
              ))}
            </span>
            <span className="block">
              {item.device.credit
                ? item.device.lockable
                  ? "Counts as a barrier, takes a lock."
                  : "Counts as a barrier, takes no lock: tag only."
                : "No barrier, whatever its position."}{" "}
              {item.device.positive && "Positive. "}
              <span className="num">{item.device.effort_min} min</span> to isolate. Stands {item.device.stands}.
            </span>
          </Row>
        )}
        {item.bleed && (
          <Row label="Bleed">
            {item.bleed.safe ? "to a safe place" : "not to a safe place"}
            {item.bleed.gauge ? ", with a gauge" : ""}
          </Row>
        )}
      </dl>
      <h2 className="mt-8 mb-2 text-lg font-semibold">Linked to</h2>
      {links.length === 0 ? (
        <p>Nothing. An item without links cannot be traced: check the drawing.</p>
      ) : (
        <table className="table-sm table">
          <thead>
            <tr>
              <th>From</th>
              <th>To</th>
              <th>Carries</th>
              <th>Walked</th>
            </tr>
          </thead>
          <tbody>
            {links.map((link, index) => (
              <tr key={index}>
                <td>
                  <TagLink tag={link.from} />
                </td>
                <td>
                  <TagLink tag={link.to} />
                </td>
                <td>
                  <Carrier name={link.carries} />
                  {link.wall && " through a wall only"}
                  {link.oneWay && " one way"}
                </td>
                <td>
                  {link.walked ? <span className="num">{link.walked}</span> : <strong>never</strong>}
                  {link.temporary && <span className="block">temporary, out by {link.temporary.until}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="opacity-85">{label}</dt>
      <dd>{children}</dd>
    </>
  );
}

function TagLink({ tag }: { tag: string }) {
  return (
    <Link href={`/plant/${encodeURIComponent(tag)}`} className="tag link link-hover">
      {tag}
    </Link>
  );
}
