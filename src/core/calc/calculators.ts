import type { Calculator } from "./calculator";
import * as air from "./calculators/air";
import * as airTests from "./calculators/airTests";
import * as electrical from "./calculators/electrical";
import * as emptying from "./calculators/emptying";
import * as hotWork from "./calculators/hotWork";
import * as planning from "./calculators/planning";
import * as pressureTest from "./calculators/pressureTest";
import * as waiting from "./calculators/waiting";

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
  waiting.blockedIn,
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
