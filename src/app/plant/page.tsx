import type { Metadata } from "next";
import Link from "next/link";
import { mayRead } from "@/core/people/mayRead";
import { PAGE_SIZE, revisions, searchRegister, siteBlocks } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { SitePlan } from "@/ui/plant/SitePlan";
import { dayAndClock } from "@/ui/text/when";
import { Pages } from "@/ui/text/Pages";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Plant" };

const PART_WORDS: Readonly<Record<string, string>> = {
  source: "supplies energy",
  stored: "stores energy",
  device: "can be isolated",
  "no-credit": "no barrier",
  bleed: "bleed",
};

const TAKEN_OUT = [
  ["register.xlsx", "a workbook"],
  ["items.csv", "items.csv"],
  ["links.csv", "links.csv"],
  ["areas.csv", "areas.csv"],
  ["plant.json", "plant.json"],
] as const;

export default async function PlantPage({ searchParams }: { searchParams: Promise<{ find?: string; page?: string }> }) {
  const person = await requirePerson();
  const { find = "", page: asked } = await searchParams;
  const page = Math.max(1, Math.floor(Number(asked)) || 1);
  const { rows, found } = searchRegister(find, page);
  const [latest] = revisions();
  const blocks = siteBlocks();
  const timeZone = siteTimeZone();
  const pages = Math.max(1, Math.ceil(found / PAGE_SIZE));
  const pageLink = (to: number) => `/plant?${new URLSearchParams({ find, page: String(to) }).toString()}`;
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Plant register</h1>
        {person.roles.includes("coordinator") && (
          <Link href="/plant/import" className="btn btn-outline ml-auto">
            Import a register
          </Link>
        )}
      </div>
      {latest ? (
        <p className="mb-6 opacity-85">
          Revision <span className="num">{latest.revision}</span>: <span className="num">{latest.items}</span> items,{" "}
          <span className="num">{latest.links}</span> links, imported by {latest.by} on{" "}
          {dayAndClock(latest.at, timeZone)}.
          {mayRead("files", person) && (
            <>
              {" "}
              Take it out as{" "}
              {TAKEN_OUT.map(([file, words], i) => (
                <span key={file}>
                  {i > 0 && (i === TAKEN_OUT.length - 1 ? " or " : ", ")}
                  <a href={`/plant/export/${file}`} download className="link">
                    {words}
                  </a>
                </span>
              ))}
              .
            </>
          )}
        </p>
      ) : (
        <p className="mb-6">No register was imported yet.</p>
      )}
      <form role="search" className="mb-6 flex max-w-xl items-end gap-3" action="/plant">
        <label className="flex grow flex-col gap-1">
          <span className="text-sm font-medium">Find by tag, name, kind or area</span>
          <input
            name="find"
            defaultValue={find}
            type="search"
            className="input w-full"
            placeholder="P-204A, steam, tank farm"
          />
        </label>
        <button type="submit" className="btn btn-outline">
          Find
        </button>
      </form>
      {page === 1 &&
        (find === "" || blocks.some((block) => block.name.toLowerCase() === find.trim().toLowerCase())) && (
          <SitePlan blocks={blocks} chosen={find} />
        )}
      {rows.length === 0 ? (
        <p>{find ? `Nothing in the register matches “${find}”.` : "The register is empty."}</p>
      ) : (
        <WideTable label="Items">
          <table className="table-sm table max-w-6xl">
            <thead>
              <tr>
                <th>Tag</th>
                <th>Name</th>
                <th>Kind</th>
                <th>Area</th>
                <th>In the engine</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.tag} className="hover:bg-base-200">
                  <td>
                    <Link href={`/plant/${encodeURIComponent(row.tag)}`} className="tag link link-hover">
                      {row.tag}
                    </Link>
                  </td>
                  <td>{row.name}</td>
                  <td>{row.kind}</td>
                  <td>{row.area}</td>
                  <td>
                    {row.part
                      .split(" ")
                      .filter(Boolean)
                      .map((part) => PART_WORDS[part] ?? part)
                      .join(", ") || "passes energy on"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <Pages page={page} pages={pages} link={pageLink} words={["Before", "Next"]} />
    </div>
  );
}
