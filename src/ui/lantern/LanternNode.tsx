import type { LanternNode as Node } from "../../core/lantern/lanternScene";

type Props = Readonly<{
  node: Node;
  box: { x: number; y: number; width: number; height: number };
  lit: boolean;
  /** A proof failed there: taken as live, whatever the plan says. */
  isNotProved: boolean;
  isolated: boolean;
  traced: boolean;
  proven: boolean;
  /** The device looked at would light this face if it leaked. */
  wouldLight: boolean;
  look: (id: string | null) => void;
  /** Called when it is touched. */
  choose?: (id: string) => void;
  halo: string;
}>;

/**
 * One place. A source carries rays, a device a slot that is barred when it stops, a bleed a drop, the work a double
 * frame. Live plates are filled with light, dark ones are outlines.
 */
export function LanternNode({
  node,
  box,
  lit,
  isNotProved,
  isolated,
  traced,
  proven,
  wouldLight,
  look,
  choose,
  halo,
}: Props) {
  const { width, height } = box;
  const live = (lit || isNotProved) && !isolated;
  const state = isNotProved
    ? "not proved"
    : node.opened && !live
      ? "bleed open"
      : isolated
        ? "isolated"
        : live
          ? "live"
          : proven
            ? "proven dark"
            : "dark";
  const shutIn = node.cavity > 0 && !live && !isolated;
  const ink = live ? "var(--color-accent-content)" : "var(--color-base-content)";
  return (
    <g
      transform={`translate(${box.x} ${box.y})`}
      role="img"
      onPointerEnter={() => look(node.id)}
      onPointerLeave={() => look(null)}
      onClick={choose && (() => choose(node.id))}
      aria-label={`${node.id}, ${node.name || node.kind}, ${state}`}
    >
      <title>{`${node.id}  ${node.name || node.kind}: ${state}`}</title>
      {wouldLight && (
        <rect
          x={-9}
          y={-9}
          width={width + 18}
          height={height + 18}
          rx={10}
          fill="none"
          style={{ stroke: "var(--glow)" }}
          strokeWidth={3}
          strokeDasharray="7 5"
        />
      )}
      {live && (
        <rect
          x={-4}
          y={-4}
          width={width + 8}
          height={height + 8}
          rx={8}
          style={{ fill: "var(--glow)" }}
          opacity={0.45}
          filter={`url(#${halo})`}
        />
      )}
      <rect
        width={width}
        height={height}
        rx={node.role === "source" ? height / 2 : 4}
        style={{
          fill: live ? "var(--glow)" : "var(--color-base-100)",
          stroke: live ? "var(--glow)" : "var(--dark-part)",
        }}
        strokeWidth={traced ? 3.5 : node.role === "face" ? 2.5 : 1.3}
        strokeDasharray={node.role === "device" && !node.credit ? "4 3" : undefined}
        className="transition-[fill] duration-500"
      />
      {shutIn && (
        <>
          <rect width={width} height={height} rx={4} style={{ fill: `url(#${halo}-hatch)` }} />
          <text
            x={width - 4}
            y={-5}
            textAnchor="end"
            fontSize={13}
            fontWeight={700}
            className="font-mono"
            style={{ fill: "var(--color-base-content)" }}
          >
            {node.opened ? "open" : node.cavity}
          </text>
        </>
      )}
      {node.role === "area" && (
        <rect x={5} y={-5} width={width - 10} height={5} style={{ fill: "none", stroke: "var(--dark-part)" }} />
      )}
      {node.role === "face" && (
        <rect
          x={4}
          y={4}
          width={width - 8}
          height={height - 8}
          rx={2}
          fill="none"
          style={{ stroke: ink }}
          strokeWidth={1}
        />
      )}
      {isolated && (
        <rect
          x={-3}
          y={-3}
          width={width + 6}
          height={height + 6}
          rx={6}
          fill="none"
          style={{ stroke: "var(--color-base-content)" }}
          strokeWidth={2}
        />
      )}
      <g transform={`translate(12 ${height / 2})`} style={{ color: ink }}>
        <Sign role={node.role} isolated={isolated} proven={proven} opened={node.opened && !live} />
      </g>
      <text
        x={node.role === "plain" ? 12 : 32}
        y={height / 2 + 5}
        fontSize={14}
        className="font-mono"
        fontWeight={node.point || node.role === "face" ? 700 : 500}
        style={{ fill: ink }}
      >
        {node.id}
      </text>
    </g>
  );
}

function Sign({
  role,
  isolated,
  proven,
  opened,
}: {
  role: Node["role"];
  isolated: boolean;
  proven: boolean;
  opened: boolean;
}) {
  const line = { stroke: "currentColor", strokeWidth: 2, strokeLinecap: "round" as const, fill: "none" };
  switch (role) {
    case "source":
      return (
        <g {...line}>
          <circle cx={6} r={3.2} fill="currentColor" />
          <path d="M6 -8v-1M6 8v1M-2 0h-1M14 0h1M.5 -5.5l-.8 -.8M11.5 -5.5l.8 -.8M.5 5.5l-.8 .8M11.5 5.5l.8 .8" />
        </g>
      );
    case "device":
      return isolated ? (
        <path {...line} strokeWidth={4} d="M6 -9v18" />
      ) : (
        <path {...line} d="M2 -8v5M2 3v5M10 -8v5M10 3v5M-1 0h14" />
      );
    case "bleed":
      return (
        <path
          {...line}
          fill={opened ? "currentColor" : "none"}
          d="M6 -8c-4 6 -5 8 -5 10a5 5 0 0 0 10 0c0 -2 -1 -4 -5 -10z"
        />
      );
    case "face":
      return proven ? (
        <path {...line} strokeWidth={2.6} d="M0 0l4 5l8 -10" />
      ) : (
        <path {...line} d="M0 -6h12M0 0h12M0 6h12" />
      );
    case "stored":
      return <path {...line} d="M-1 7l4 -14l4 14l4 -14l3 10" />;
    case "plain":
      return null;
  }
}
