import { mayRead, type Reader } from "@/core/people/mayRead";

/** The whole list as a table or a workbook, whatever part of it is shown; nothing for whoever may not take it out. */
export function TakeOut({
  list,
  reader,
  words = "Take all of it out as",
}: Readonly<{ list: string; reader: Reader; words?: string }>) {
  if (!mayRead(list === "people" ? "people as a file" : "files", reader)) return null;
  return (
    <p className="text-sm opacity-85">
      {words}{" "}
      <a href={`/lists/${list}.xlsx`} download className="link">
        a workbook
      </a>{" "}
      or{" "}
      <a href={`/lists/${list}.csv`} download className="link">
        CSV
      </a>
    </p>
  );
}
