import { Fragment } from "react";

/** A way in tags, from source to work; devices that are points stand out. No tag breaks at its hyphen. */
export function Route({ via, marked = [] }: { via: readonly string[]; marked?: readonly string[] }) {
  return (
    <p className="way">
      {via.map((place, index) => (
        <Fragment key={`${place}${index}`}>
          {index > 0 && " › "}
          {marked.includes(place) ? <b>{place}</b> : <span>{place}</span>}
        </Fragment>
      ))}
    </p>
  );
}
