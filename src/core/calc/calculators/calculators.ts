import type { Calculator } from "../calculator";
import * as air from "./air";
import * as airTests from "./airTests";
import * as electrical from "./electrical";
import * as emptying from "./emptying";
import * as hotWork from "./hotWork";
import * as earths from "./earths";
import * as fume from "./fume";
import * as holding from "./holding";
import * as lines from "./lines";
import * as moreAir from "./moreAir";
import * as openSecondaries from "./openSecondary";
import * as passing from "./passing";
import * as people from "./people";
import * as pressureWork from "./pressureWork";
import * as sparks from "./sparks";
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
  moreAir.ventilation,
  fume.weldingFume,
  moreAir.intoService,
  moreAir.exhaustDistance,
  airTests.airTest,
  airTests.sampleWait,
  airTests.placesToTest,
  airTests.gasWeight,
  airTests.mixtureLfl,
  airTests.sensorForGas,
  moreAir.trueReading,
  moreAir.oxygenGap,
  emptying.tankDrain,
  lines.pumpOut,
  emptying.blowdown,
  emptying.staticHead,
  passing.passingGas,
  passing.passingLiquid,
  passing.measuredRise,
  lines.lineDrain,
  lines.lineBlowdown,
  lines.longLine,
  lines.lineHeads,
  pressureWork.residualForce,
  pressureWork.bleedFlow,
  waiting.coolDown,
  waiting.capacitor,
  waiting.runDown,
  waiting.accumulator,
  waiting.raisedMass,
  waiting.spring,
  waiting.flywheel,
  warming.blockedIn,
  earths.cableCharge,
  electrical.deadTests,
  electrical.approachDistance,
  electrical.faultCurrent,
  electrical.touchResistance,
  electrical.backFeed,
  openSecondaries.openSecondary,
  earths.threePhase,
  earths.portableEarth,
  earths.inducedVoltage,
  earths.arcEnergy,
  pressureTest.gasEnergy,
  pressureTest.blankThickness,
  pressureTest.equipmentDates,
  pressureWork.testPressure,
  pressureWork.pressureHold,
  hotWork.clearZone,
  hotWork.afterWatch,
  hotWork.leakingCylinder,
  sparks.sparkThrow,
  sparks.wallHeat,
  people.breathingAir,
  people.peopleInSpace,
  people.heatStress,
  holding.sling,
  holding.outrigger,
  holding.dropZone,
  holding.pin,
  planning.hasps,
  planning.lift,
  planning.criticalPathOf,
];

export function calculatorNamed(name: string): Calculator | undefined {
  return CALCULATORS.find((one) => one.name === name);
}
