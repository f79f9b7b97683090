/** A way in tags, from source to work; devices that are points stand out. */
export function Route({ via, marked = [] }: { via: readonly string[]; marked?: readonly string[] }) {
  return (
    <ol className="flex flex-wrap items-center gap-x-1 gap-y-0.5">
      {via.map((place, index) => (
        <li key={`${place}${index}`} className="flex items-center gap-1">
          <span
            className={`tag text-sm ${marked.includes(place) ? "rounded-sm border border-current px-1 font-bold" : ""}`}
          >
            {place}
          </span>
          {index < via.length - 1 && (
            <span aria-hidden className="opacity-60">
              ›
            </span>
          )}
        </li>
      ))}
    </ol>
  );
}
