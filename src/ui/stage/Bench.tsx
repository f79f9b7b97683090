"use client";

import type { ReactNode } from "react";
import { Group, Panel, Separator } from "react-resizable-panels";

/**
 * The bench: the drawing on one side, always in sight, and what it is about on the other, which scrolls by itself. The
 * border between them is dragged or moved by arrow keys. On a phone what it is about comes first, the drawing below.
 */
export function Bench({ drawing, children, foot }: { drawing: ReactNode; children: ReactNode; foot?: ReactNode }) {
  return (
    <div data-bench className="bench">
      <Group orientation="horizontal" className="bench-panes">
        <Panel id="drawing" defaultSize="60" minSize="25" className="bench-drawing">
          {drawing}
        </Panel>
        <Separator className="bench-border" aria-label="Border between the drawing and what it is about" />
        <Panel id="about" minSize="25" className="bench-about">
          <div className="bench-column">
            <div className="bench-scroll">{children}</div>
            {foot && <div className="bench-foot">{foot}</div>}
          </div>
        </Panel>
      </Group>
    </div>
  );
}
