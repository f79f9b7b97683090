/** The whole list as a table or a workbook, whatever part of it is shown. */
export function TakeOut({ list, words = "Take all of it out as" }: { list: string; words?: string }) {
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
