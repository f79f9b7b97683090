import { gasesOf, sweepTarget } from "../atmosphere/gasesOf";
import { AT_A_POINT_s, ROUND_s, testPoints } from "../atmosphere/testPoints";
import type { Item } from "../plant/plant";
import { given, type Wait } from "./wait";

/** Taken where the register does not say how large a space is, in m³. */
const UNKNOWN_SPACE_m3 = 30;

/** Oxygen of the air, and what is low enough that nothing burns: 2 %. Common practice. */
const INERT = { c0: 0.209, c: 0.02, cs: 0.001 } as const;

export function inertWait(face: string, item: Item | undefined): Wait {
  const assumed: string[] = [];
  return {
    words: `sweep ${face} with inert gas`,
    calculator: "purge-dilution",
    inputs: { volume_m3: spaceVolume(face, item, assumed), ...INERT },
    fromSetup: { flow_m3_s: "inert_m3_s", mixing: "mixing" },
    result: "time_s",
    attended: false,
    assumed,
  };
}

export function purgeWait(face: string, item: Item | undefined): Wait {
  const assumed: string[] = [];
  const target = sweepTarget(gasesOf(face, item?.contents).map(({ gas }) => gas));
  if (target === null) assumed.push(`what has to be swept out of ${face}: not known, so the time calls nothing fit`);
  return {
    words: `purge ${face}`,
    calculator: "manhole-purge",
    inputs: {
      ...(target === null ? {} : { c: target.fraction }),
      volume_m3: spaceVolume(face, item, assumed),
      chimneys: given(item?.space?.chimneys, 1, `chimneys of ${face}: taken as 1`, assumed),
    },
    fromSetup: { rated_m3_s: "blower_m3_s", bends: "bends", mixing: "mixing" },
    result: "time_s",
    attended: false,
    assumed,
  };
}

function spaceVolume(face: string, item: Item | undefined, assumed: string[]): number {
  const note = `volume of ${face}: taken as ${UNKNOWN_SPACE_m3} m³`;
  return given(item?.contents?.volume_m3, UNKNOWN_SPACE_m3, note, assumed) || UNKNOWN_SPACE_m3;
}

/** As the register says, else what a vessel measures across. */
export function spaceWidth_m(item: Item | undefined): number | undefined {
  return item?.space?.width_m ?? item?.vessel?.diameter_m;
}

export function sampleWaits(face: string, item: Item | undefined): Wait {
  const assumed: string[] = [];
  const { space } = item ?? {};
  const points = testPoints({
    depth_m: given(space?.depth_m, 5, `depth of ${face}: taken as 5 m`, assumed),
    travel_m: given(space?.travel_m, 2.4, `length of ${face}: taken as 2.4 m`, assumed),
    width_m: given(spaceWidth_m(item), 2.4, `width of ${face}: taken as 2.4 m`, assumed),
    corners: given(space?.corners, 4, `corners of ${face}: taken as 4`, assumed),
    ducts: space?.ducts ?? 0,
  });
  return {
    words: `wait for the samples of ${face}`,
    calculator: "sample-wait",
    inputs: { points: points.length, each_s: AT_A_POINT_s, round_s: ROUND_s },
    fromSetup: FROM_TESTERS,
    result: "all_s",
    attended: true,
    assumed,
  };
}

const FROM_TESTERS = {
  hose_m: "hose_m",
  bore_m: "hoseBore_m",
  pump_m3_s: "pump_m3_s",
  t90_s: "t90_s",
  instruments: "testers",
} as const;

/** Round a place of hot work outside equipment, where nobody has named them yet. Common practice, no source. */
const AROUND_FLAME = 3;

/** A round of air tests where work goes on: all of a space, or round what burns. */
export function roundWait(face: string, item: Item | undefined, isEntered: boolean): Wait {
  if (isEntered) return { ...sampleWaits(face, item), words: `test the air of ${face} again` };
  return {
    words: `test the air round ${face} again`,
    calculator: "sample-wait",
    inputs: { points: AROUND_FLAME, each_s: AT_A_POINT_s, round_s: ROUND_s },
    fromSetup: FROM_TESTERS,
    result: "all_s",
    attended: true,
    assumed: [`test points round ${face}: taken as ${AROUND_FLAME}`],
  };
}
