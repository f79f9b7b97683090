import type { ReactNode } from "react";

/** What is looked at less often: its name and how much there is of it, and all of it when it is opened. */
export function Drawer({
  title,
  count,
  open = false,
  children,
}: {
  title: string;
  count?: number | string;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <details className="border-base-300 border-t" open={open}>
      <summary className="flex min-h-11 cursor-pointer items-center gap-3 font-semibold">
        <span className="flex-1">{title}</span>
        {count !== undefined && <span className="num font-normal">{count}</span>}
        <span aria-hidden className="drawer-mark" />
      </summary>
      <div className="pb-4">{children}</div>
    </details>
  );
}
