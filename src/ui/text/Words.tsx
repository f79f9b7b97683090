import { Fragment } from "react";
import { withWholeTags } from "./wholeTags";

/** A sentence whose tags are never broken at their hyphens. */
export function Words({ children }: { children: string }) {
  return withWholeTags(children).map(({ text, isTag }, index) =>
    isTag ? (
      <span key={index} className="whitespace-nowrap">
        {text}
      </span>
    ) : (
      <Fragment key={index}>{text}</Fragment>
    ),
  );
}
