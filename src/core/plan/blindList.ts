import { blankThickness_m } from "../energy/blankThickness";
import { AMBIENT_C, flangeRating_Pa } from "../energy/flangeRating";
import type { RequiredPair } from "../judge/requirePairs";
import type { BarrierField } from "../barrier/pairs";
import { familyOf } from "../requirement/grades";

/** A blind to fit: what the store has to hand out. */
export type Blind = Readonly<{
  device: string;
  bore_m: number | null;
  flangeClass: string | null;
  /** The highest pressure that a source of the job can bring; null when one of them is not known. */
  pressure_Pa: number | null;
  /** What its class bears near ambient; null when nobody wrote it down, or it is no pressure number. */
  rated_Pa: number | null;
  /** The source that brings that pressure. */
  from: string | null;
  /** Least thickness; null when bore or pressure is missing. */
  thickness_m: number | null;
  missing: readonly string[];
}>;

/** Allowable stress of plain carbon steel plate near ambient, 138 MPa. From memory of ASME B31.3 table A-1; check yours. */
const PLATE_STRESS_Pa = 138e6;

/** One row for each positive device in a flow line, sorted by tag. */
export function blindList(field: BarrierField, pairs: readonly RequiredPair[], blinds: ReadonlySet<number>): Blind[] {
  const { plant } = field.graph;
  const bringing = pairs
    .filter(({ source, demands }) => familyOf(source.carrier) === "flow" && demands.some((demand) => demand.positive))
    .map(({ source }) => ({
      tag: plant.items[source.item]!.tag,
      pressure_Pa: plant.items[source.item]!.contents?.pressure_Pa,
      temperature_C: plant.items[source.item]!.contents?.temperature_C,
    }));
  const strongest = bringing.reduce<(typeof bringing)[number] | null>(
    (most, one) => ((one.pressure_Pa ?? -Infinity) > (most?.pressure_Pa ?? -Infinity) ? one : most),
    null,
  );
  const hottest_C = Math.max(...bringing.map(({ temperature_C }) => temperature_C ?? -Infinity));
  const isKnown = bringing.every(({ pressure_Pa }) => pressure_Pa !== undefined);
  const pressure_Pa = isKnown ? (strongest?.pressure_Pa ?? null) : null;
  return [...blinds]
    .map((index) => plant.items[index]!)
    .filter((item) => item.device!.stops.some((carrier) => familyOf(carrier) === "flow"))
    .map((item): Blind => {
      const { bore_m, flangeClass } = item.device!;
      const missing = [
        ...(bore_m === undefined ? [`line size of ${item.tag}`] : []),
        ...(flangeClass === undefined ? [`flange class of ${item.tag}`] : []),
        ...(flangeClass !== undefined && hottest_C > AMBIENT_C
          ? [`what class ${flangeClass} of ${item.tag} bears at ${Math.round(hottest_C)} °C`]
          : []),
        ...(flangeClass !== undefined && flangeRating_Pa(flangeClass) === null
          ? [`what class ${flangeClass} of ${item.tag} bears`]
          : []),
        ...(pressure_Pa === null ? ["pressure of every source"] : []),
      ];
      const thickness_m =
        bore_m === undefined || pressure_Pa === null || pressure_Pa <= 0
          ? null
          : blankThickness_m({ gasket_m: bore_m, pressure_Pa, stress_Pa: PLATE_STRESS_Pa });
      return {
        device: item.tag,
        bore_m: bore_m ?? null,
        flangeClass: flangeClass ?? null,
        pressure_Pa,
        rated_Pa: flangeRating_Pa(flangeClass),
        from: strongest?.tag ?? null,
        thickness_m,
        missing,
      };
    })
    .sort((a, b) => (a.device < b.device ? -1 : 1));
}
