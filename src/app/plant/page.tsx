import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { mayRead } from "@/core/people/mayRead";
import { PLANT_SORTS, revisions, searchRegister, siteBlocks } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { SitePlan } from "@/ui/plant/SitePlan";
import { FindForm } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { dayAndClock } from "@/ui/text/when";
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

const COLUMNS = [
  { words: "Tag", sort: "tag" },
  { words: "Name", sort: "name" },
  { words: "Kind", sort: "kind" },
  { words: "Area", sort: "area" },
  { words: "In the engine" },
] as const;

type Params = Promise<Record<string, string | string[] | undefined>>;

export default async function PlantPage({ searchParams }: { searchParams: Params }) {
  const person = await requirePerson();
  const query = readListQuery(await searchParams, PLANT_SORTS, { sort: "tag", down: false });
  const { find } = query;
  const { rows, page, pages } = searchRegister(find, query.page, query);
  const [latest] = revisions();
  const blocks = siteBlocks();
  const timeZone = siteTimeZone();
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Plant register</h1>
        <FindForm path="/plant" query={query} words="Tag, name, kind or area" />
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
              <ListHead columns={COLUMNS} query={query} path="/plant" />
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
      <ListPages path="/plant" query={query} page={page} pages={pages} />
    </div>
  );
}
