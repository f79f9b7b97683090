import { carrierMark } from "../../core/lantern/carrierMarks";

export function Carrier({ name }: { name: string }) {
  const mark = carrierMark(name);
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <span
        aria-hidden
        className="grid size-5 place-items-center rounded-sm border border-current font-mono text-xs leading-none"
      >
        {mark.letter}
      </span>
      {mark.words}
    </span>
  );
}
