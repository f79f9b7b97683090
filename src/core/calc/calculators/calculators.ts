import type { Calculator } from "../calculator";
import * as air from "./air";
import * as airTests from "./airTests";
import * as electrical from "./electrical";
import * as emptying from "./emptying";
import * as hotWork from "./hotWork";
import * as planning from "./planning";
import * as pressureTest from "./pressureTest";
import * as waiting from "./waiting";
import * as warming from "./warming";

/** Every calculator, in the order of the bench. */
export const CALCULATORS: readonly Calculator[] = [
  air.purgeDilution,
  air.purgeOfManhole,
  air.blowerByBends,
  air.airChanges,
  air.purgeByCycles,
  air.inertLeak,
  airTests.airTest,
  airTests.sampleWait,
  airTests.placesToTest,
  airTests.gasWeight,
  airTests.mixtureLfl,
  airTests.sensorForGas,
  emptying.tankDrain,
  emptying.blowdown,
  emptying.staticHead,
  emptying.passingGas,
  emptying.passingLiquid,
  emptying.measuredRise,
  waiting.coolDown,
  waiting.capacitor,
  waiting.runDown,
  waiting.accumulator,
  waiting.raisedMass,
  waiting.spring,
  waiting.flywheel,
  warming.blockedIn,
  electrical.deadTests,
  electrical.approachDistance,
  electrical.faultCurrent,
  electrical.touchResistance,
  electrical.backFeed,
  pressureTest.gasEnergy,
  pressureTest.blankThickness,
  pressureTest.equipmentDates,
  hotWork.clearZone,
  hotWork.afterWatch,
  hotWork.leakingCylinder,
  planning.hasps,
  planning.lift,
  planning.criticalPathOf,
];

export function calculatorNamed(name: string): Calculator | undefined {
  return CALCULATORS.find((one) => one.name === name);
}
