"use client";

import { Maximize2, Minus, Plus } from "lucide-react";
import { select, zoom, zoomIdentity, type ZoomBehavior } from "d3";
import { useEffect, useId, useMemo, useRef, useState, useSyncExternalStore } from "react";
import type { Layout } from "../../core/lantern/lanternLayout";
import type { LanternScene } from "../../core/lantern/lanternScene";
import { carrierMark } from "../../core/lantern/carrierMarks";
import { shine, useShine } from "../stage/shine";
import { LanternEdge } from "./LanternEdge";
import { LanternNode } from "./LanternNode";

/** One light, in places of the scene's lists: a frame for every point would repeat every tag. */
export type Frame = Readonly<{
  label: string;
  nodes: readonly number[];
  edges: readonly number[];
  isolated: readonly number[];
}>;
type Props = Readonly<{
  scene: LanternScene;
  /** Where everything stands. */
  layout: Layout;
  frames: readonly Frame[];
  /** The frame that stands now. */
  now: number;
  /** A way to stand out, in place names. */
  trace?: readonly string[];
  /** Work locations that were shown to be dead, and those where a proof failed since. */
  proven?: readonly string[];
  notProved?: readonly string[];
  /** For each isolated device, the faces that light if it alone leaks. */
  failures?: readonly Readonly<{ device: string; faces: readonly string[] }>[];
  /** In pixels; without it the drawing takes what room there is. */
  height?: number;
}>;

const never = () => () => {};

/** Text is drawn at 14; below this scale it would be under 12 pixels. */
const SMALLEST_SCALE = 12 / 14;

/**
 * The lantern: live parts glow, isolated parts go dark. The slider takes the points one by one; a glowing line is also
 * thick and drawn over, a dark one thin, so that it reads without colour.
 */
export function Lantern({
  scene,
  layout: size,
  frames,
  now,
  trace = [],
  proven = [],
  notProved = [],
  failures = [],
  height,
}: Props) {
  // Half of the page would be the drawing, twice: it is drawn where it is seen, from the figures that the page brings.
  const isDrawn = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  const [shown, setShown] = useState(now);
  const [looked, setLooked] = useState<string | null>(null);
  const [sought, setSought] = useState("");
  const [standing, setStanding] = useState(now);
  if (standing !== now) {
    // The walk moved on: follow it.
    setStanding(now);
    setShown(now);
  }
  const frame = frames[Math.min(shown, frames.length - 1)]!;
  const lit = useMemo(
    () => ({
      nodes: new Set(frame.nodes.map((index) => scene.nodes[index]!.id)),
      edges: new Set(frame.edges.map((index) => scene.edges[index]!.id)),
      isolated: new Set(frame.isolated.map((index) => scene.nodes[index]!.id)),
    }),
    [frame, scene],
  );
  const svg = useRef<SVGSVGElement>(null);
  const view = useRef<SVGGElement>(null);
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const id = useId();

  useEffect(() => {
    if (!svg.current || !size) return;
    const box = select(svg.current);
    const made = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.25, 3])
      // The wheel scrolls the page; with Ctrl it zooms, as on a map.
      .filter((event: WheelEvent | MouseEvent) => event.type !== "wheel" || event.ctrlKey)
      .on("zoom", (event: { transform: { toString: () => string } }) => {
        view.current?.setAttribute("transform", event.transform.toString());
      });
    behaviour.current = made;
    box.call(made);
    fit(SMALLEST_SCALE);
    return () => {
      box.on(".zoom", null);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new layout is fitted anew
  }, [size]);

  function fit(smallest: number) {
    if (!svg.current || !size || !behaviour.current) return;
    const { width, height: tall } = svg.current.getBoundingClientRect();
    const scale = Math.max(smallest, Math.min(1.2, (width - 32) / size.width, (tall - 32) / size.height));
    // When not all fits, the work is in the middle.
    const faces = scene.nodes.flatMap((node) => (node.role === "face" ? (size.nodes[node.id] ?? []) : []));
    const middle = (from: "x" | "y", length: "width" | "height") =>
      faces.reduce((sum, box) => sum + box[from] + box[length] / 2, 0) / Math.max(1, faces.length);
    const place = (room: number, whole: number, centre: number) =>
      whole <= room ? (room - whole) / 2 : Math.min(16, Math.max(room - whole - 16, room / 2 - centre));
    const left = place(width, size.width * scale, middle("x", "width") * scale);
    const top = place(tall, size.height * scale, middle("y", "height") * scale);
    select(svg.current).call(behaviour.current.transform, zoomIdentity.translate(left, top).scale(scale));
  }
  function centreOn(place: string) {
    const box = size?.nodes[place];
    if (!svg.current || !box || !behaviour.current) return;
    const { width, height: tall } = svg.current.getBoundingClientRect();
    const left = width / 2 - box.x - box.width / 2;
    const top = tall / 2 - box.y - box.height / 2;
    select(svg.current).call(behaviour.current.transform, zoomIdentity.translate(left, top));
  }
  const zoomBy = (factor: number) =>
    svg.current && behaviour.current && select(svg.current).call(behaviour.current.scaleBy, factor);
  const panBy = (x: number, y: number) =>
    svg.current && behaviour.current && select(svg.current).call(behaviour.current.translateBy, x, y);

  const isProved = proven.length > 0 && scene.nodes.every(({ id, role }) => role !== "face" || proven.includes(id));
  const liveAtWork = scene.nodes
    .filter((node) => node.role === "face" && lit.nodes.has(node.id))
    .map((node) => node.id);
  const shining = useShine();
  const carriers = [...new Set(scene.edges.map((edge) => edge.carrier))];
  const traced = new Set(shining.via.length > 0 ? shining.via : trace);
  const pointed = looked ?? shining.device;
  const failing = failures.find(({ device }) => device === pointed && lit.isolated.has(device));
  const found =
    sought.trim() === ""
      ? []
      : scene.nodes.filter(({ id, name }) => `${id} ${name}`.toLowerCase().includes(sought.trim().toLowerCase()));
  const isFound = new Set(found.map((node) => node.id));

  return (
    <figure
      aria-labelledby={`${id}-caption`}
      className={height === undefined ? "flex h-full flex-col" : "border-base-300 border"}
    >
      <div className="no-print border-base-300 flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b py-1 pr-1 pl-4">
        <p aria-live="polite" className="min-w-0 basis-full text-sm opacity-85 sm:flex-1 sm:basis-0">
          {failing
            ? failing.faces.length > 0
              ? `If ${failing.device} alone leaks: ${failing.faces.join(", ")} would be live.`
              : `If ${failing.device} alone leaks: nothing reaches any work location.`
            : sought.trim() !== ""
              ? `${found.length} found${
                  found.length > 0
                    ? `: ${found
                        .slice(0, 4)
                        .map((node) => node.id)
                        .join(", ")}`
                    : ""
                }`
              : `What is live glows.${failures.length > 0 ? " Point at a device to see what is reached if it leaks." : ""}`}
        </p>
        <div className="flex items-center gap-1">
          <label className="mr-2 flex items-center gap-2 text-sm">
            <span className="sr-only">Find in the drawing</span>
            <input
              type="search"
              value={sought}
              placeholder="Find a tag"
              className="input tag h-8 w-32"
              onChange={(event) => setSought(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === "Enter" && found[0]) {
                  event.preventDefault();
                  centreOn(found[0].id);
                }
              }}
            />
          </label>
          <Tool label="Zoom in" onClick={() => zoomBy(1.25)} icon={<Plus aria-hidden size={16} />} />
          <Tool label="Zoom out" onClick={() => zoomBy(0.8)} icon={<Minus aria-hidden size={16} />} />
          <Tool label="Show all" onClick={() => fit(0.25)} icon={<Maximize2 aria-hidden size={16} />} />
        </div>
      </div>
      <div
        className={`bg-base-200 relative ${height === undefined ? "min-h-0 flex-1 max-lg:h-80 max-lg:flex-none" : ""}`}
        style={{ height }}
      >
        <svg
          ref={svg}
          role="group"
          aria-label="Diagram. Arrow keys move it, plus and minus zoom, F shows all."
          tabIndex={0}
          className="size-full cursor-grab touch-none active:cursor-grabbing"
          onKeyDown={(event) => {
            const act: Record<string, () => unknown> = {
              ArrowLeft: () => panBy(60, 0),
              ArrowRight: () => panBy(-60, 0),
              ArrowUp: () => panBy(0, 60),
              ArrowDown: () => panBy(0, -60),
              "+": () => zoomBy(1.25),
              "=": () => zoomBy(1.25),
              "-": () => zoomBy(0.8),
              f: () => fit(0.25),
            };
            const found = act[event.key];
            if (found) {
              event.preventDefault();
              found();
            }
          }}
        >
          <defs>
            <filter id={`${id}-halo`} x="-40%" y="-60%" width="180%" height="220%">
              <feGaussianBlur stdDeviation="6" />
            </filter>
            <pattern
              id={`${id}-halo-hatch`}
              width="7"
              height="7"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <line
                x1="0"
                x2="0"
                y1="0"
                y2="7"
                style={{ stroke: "var(--dark-part)" }}
                strokeWidth="1.4"
                opacity="0.55"
              />
            </pattern>
          </defs>
          <g ref={view}>
            {isDrawn && (
              <>
                {scene.edges.map((edge) => (
                  <LanternEdge
                    key={edge.id}
                    points={size.edges[edge.id] ?? []}
                    carrier={edge.carrier}
                    lit={lit.edges.has(edge.id)}
                    traced={traced.has(edge.from) && traced.has(edge.to)}
                  />
                ))}
                {scene.nodes.map((node) => (
                  <LanternNode
                    key={node.id}
                    node={node}
                    box={size.nodes[node.id]!}
                    lit={lit.nodes.has(node.id)}
                    isNotProved={notProved.includes(node.id)}
                    isolated={lit.isolated.has(node.id)}
                    traced={traced.has(node.id) || isFound.has(node.id) || shining.device === node.id}
                    choose={failures.length > 0 ? chooseDevice : undefined}
                    wouldLight={failing?.faces.includes(node.id) ?? false}
                    look={setLooked}
                    proven={proven.includes(node.id)}
                    halo={`${id}-halo`}
                  />
                ))}
              </>
            )}
          </g>
        </svg>
      </div>
      <figcaption id={`${id}-caption`} className="border-base-300 space-y-1 border-t px-4 py-2">
        {frames.length > 1 && (
          <label className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <span className="text-sm font-medium">Points isolated</span>
            <input
              type="range"
              className="range range-xs min-w-32 flex-1"
              min={0}
              max={frames.length - 1}
              value={shown}
              aria-valuetext={frame.label}
              onChange={(event) => setShown(Number(event.target.value))}
            />
            <span className="num">
              {shown} of {frames.length - 1}
            </span>
            <span className="text-sm">{frame.label}</span>
          </label>
        )}
        <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
          <p aria-live="polite">
            {notProved.length > 0 ? (
              <>
                <strong>Not proved, whatever the plan says:</strong>{" "}
                <span className="tag whitespace-normal">{notProved.join(", ")}</span>
              </>
            ) : liveAtWork.length === 0 ? (
              isProved ? (
                <strong>Proved at every work location.</strong>
              ) : (
                <>
                  <strong>By the plan no energy reaches any work location.</strong> It counts once it is proved.
                </>
              )
            ) : (
              <>
                <strong>Still live:</strong> <span className="tag whitespace-normal">{liveAtWork.join(", ")}</span>
              </>
            )}
          </p>
          <ul aria-label="Carriers" className="flex flex-wrap items-center gap-x-4 text-sm">
            {carriers.map((carrier) => (
              <li key={carrier} className="flex items-center gap-1.5">
                <svg aria-hidden width="30" height="8">
                  <line
                    x1="0"
                    x2="30"
                    y1="4"
                    y2="4"
                    stroke="currentColor"
                    strokeWidth={carrierMark(carrier).width}
                    strokeDasharray={carrierMark(carrier).dash}
                  />
                </svg>
                {carrierMark(carrier).letter} {carrierMark(carrier).words}
              </li>
            ))}
          </ul>
        </div>
      </figcaption>
    </figure>
  );
}

/** A device that is touched in the drawing opens its row. */
function chooseDevice(device: string): void {
  shine({ via: [], device });
}

function Tool({ label, onClick, icon }: { label: string; onClick: () => void; icon: React.ReactNode }) {
  return (
    <button
      type="button"
      className="btn btn-square btn-sm bg-base-100"
      aria-label={label}
      title={label}
      onClick={onClick}
    >
      {icon}
    </button>
  );
}
