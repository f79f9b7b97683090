import { keepOutOf } from "@/core/permit/around/crossChecks";
import { placeOf } from "@/core/permit/around/hotWorkZone";
import { approachLimit } from "@/core/energy/approachLimits";
import { HOT_WORK } from "@/core/fire/hotWork";
import { figure, reachFigure } from "@/core/units/format";
import type { UnitSystem } from "@/core/units/units";
import { plantOf } from "@/server/job/plans";
import type { PermitView } from "@/server/permit/permitView";
import { ReachPlan, type Spot } from "@/ui/permit/ReachPlan";

/** How far it reaches: sparks, a burst, or a voltage. */
export function Reach({ permit, units }: { permit: PermitView; units: UnitSystem }) {
  const { details } = permit;
  if (details.kind === "electrical work")
    return <Approach permit={permit} units={units} voltage_V={details.voltage_V} />;
  if (details.kind !== "hot work" && details.kind !== "pressure test") return null;
  const isHot = details.kind === "hot work";
  const out = keepOutOf(details);
  const reach_m = isHot ? HOT_WORK.clear_m : out.distance_m;
  if (reach_m === 0) return <p>Water holds little energy: nobody in line with flanges, plugs and hoses is enough.</p>;
  const reach = reachFigure(reach_m, units);
  const { plant } = plantOf(permit.job);
  const near = ({ x_m, y_m }: Readonly<{ x_m: number; y_m: number }>) =>
    Math.hypot(x_m - details.x_m, y_m - details.y_m) <= reach_m;
  const zone: Spot[] = permit.zone.flatMap(({ tag, words }) => {
    const item = plant.items.find((one) => one.tag === tag);
    const spot = item ? placeOf(item, plant.areas) : null;
    return spot && near(spot) ? [{ tag, x_m: spot.x_m, y_m: spot.y_m, words }] : [];
  });
  const others: Spot[] = permit.inPlace
    .filter(near)
    .map(({ tag, x_m, y_m, permit: number }) => ({ tag: `${tag} ${number}`, x_m, y_m, words: number, permit: number }));
  const spots = [...new Map([...zone, ...others].map((spot) => [spot.tag, spot])).values()];
  return (
    <section aria-labelledby="reach">
      <h2 id="reach" className="mb-2 text-lg font-semibold">
        {isHot ? "What sparks can reach" : "Keep out"}
      </h2>
      {!isHot && (
        <p className="mb-2">
          <span className="num">{Number((out.energy_J / 1e6).toPrecision(3))} MJ</span> of gas: nobody nearer than{" "}
          <strong className="num">{reach}</strong>.{" "}
          {out.split && <strong>Too much in one piece: test in parts, or with water.</strong>}
        </p>
      )}
      <ReachPlan
        areas={plant.areas}
        x_m={details.x_m}
        y_m={details.y_m}
        reach_m={reach_m}
        label={isHot ? `${reach} all around, both sides of walls, openings below` : `${reach} all around`}
        units={units}
        spots={spots}
      />
    </section>
  );
}

function Approach({ permit, units, voltage_V }: { permit: PermitView; units: UnitSystem; voltage_V: number }) {
  const limit = approachLimit(permit.ruleProfile, voltage_V);
  return (
    <section aria-labelledby="approach">
      <h2 id="approach" className="mb-2 text-lg font-semibold">
        How near to what stays live
      </h2>
      {limit === null ? (
        <p>No figure is known for {voltage_V} V: a person who knows this voltage says how near.</p>
      ) : (
        <dl className="grid grid-cols-[6rem_1fr] gap-y-1">
          <dt className="num font-semibold">{figure(limit.restricted_m, "length", units)}</dt>
          <dd>nearer only qualified and shielded</dd>
          <dt className="num font-semibold">{figure(limit.limited_m, "length", units)}</dt>
          <dd>nearer nobody unqualified</dd>
          <dt className="opacity-85">Source</dt>
          <dd className="text-sm">{limit.source}</dd>
        </dl>
      )}
    </section>
  );
}
