import { Fragment } from "react";

/** Tags in a sentence, never broken at a hyphen. */
export function Tags({ tags, most = Infinity }: { tags: readonly string[]; most?: number }) {
  const shown = tags.slice(0, most);
  return (
    <>
      {shown.map((tag, index) => (
        <Fragment key={tag}>
          {index > 0 && ", "}
          <span className="tag">{tag}</span>
        </Fragment>
      ))}
      {tags.length > shown.length && ` and ${tags.length - shown.length} more`}
    </>
  );
}
