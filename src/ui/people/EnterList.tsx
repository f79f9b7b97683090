"use client";

import { useState } from "react";
import { ActForm } from "../act/ActForm";

type Slip = Readonly<{ signIn: string; password: string; pin: string }>;

/** Secrets of everybody of a list, in figures that stand under one another: shown once, for slips that are handed over. */
function Slips({ of, putAway }: Readonly<{ of: readonly Slip[]; putAway: () => void }>) {
  return (
    <div role="status" className="border-warning bg-base-200 my-3 border-l-4 px-4 py-3">
      <p>Hand each theirs in person. They are shown once and kept nowhere.</p>
      <table className="my-2">
        <thead>
          <tr className="text-left">
            <th scope="col" className="pr-6 font-medium">
              Signs in as
            </th>
            <th scope="col" className="pr-6 font-medium">
              Password
            </th>
            <th scope="col" className="font-medium">
              PIN
            </th>
          </tr>
        </thead>
        <tbody className="tag">
          {of.map(({ signIn, password, pin }) => (
            <tr key={signIn}>
              <td className="pr-6">{signIn}</td>
              <td className="pr-6">{password}</td>
              <td>{pin}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="btn btn-outline" onClick={putAway}>
        Written down
      </button>
    </div>
  );
}

/** Many people at once, from a spreadsheet: everybody of the list, or nobody and what is wrong with it. */
export function EnterList({ columns, atMost }: Readonly<{ columns: readonly string[]; atMost: number }>) {
  const [slips, setSlips] = useState<readonly Slip[] | null>(null);
  const [list, setList] = useState("");
  return (
    <section aria-labelledby="enter-list">
      <h2 id="enter-list" className="mb-2 text-lg font-semibold">
        Enter a list
      </h2>
      {slips && <Slips of={slips} putAway={() => setSlips(null)} />}
      <ActForm
        act="person.enter-list"
        label="Enter a list of people"
        toInput={() => ({ list })}
        pin
        button="Enter all of them"
        onDone={() => setList("")}
        onOnce={(once) =>
          setSlips(
            Object.entries(once).map(([signIn, both]) => {
              const [password = "", pin = ""] = both.split(" ");
              return { signIn, password, pin };
            }),
          )
        }
      >
        <p className="max-w-prose text-sm">
          Rows copied from a spreadsheet, with these headings: {columns.join(", ")}. The first three must be there;
          several roles in a cell stand between semicolons. At most {atMost} people; where one row is wrong, nobody is
          entered.
        </p>
        <label className="flex flex-col gap-1 text-sm">
          <span>The list</span>
          <textarea
            name="list"
            rows={5}
            value={list}
            onChange={(event) => setList(event.target.value)}
            spellCheck={false}
            className="textarea tag w-full"
          />
        </label>
        <label className="flex flex-col gap-1 text-sm">
          <span>Or its file, as text</span>
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            className="file-input w-full max-w-md"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) void file.text().then(setList);
            }}
          />
        </label>
      </ActForm>
    </section>
  );
}
