import type { Act } from "./act";
import { attachFigure, countStore, setUpJob } from "./dayActs";
import { hangOnBox, takeOffBox } from "./boxActs";
import { exchangeProcedures } from "./exchangeAct";
import { bumpGear, enterGear, giveBackGear, handOutGear, withdrawGear } from "./gearActs";
import { canDoStep, doStep, proveAgain, startReturn } from "./isolationActs";
import { cannotDoStep, replan } from "./replanActs";
import { reviewIsolation } from "./reviewAct";
import { agreeToTest, askTest, callOffTest, startTest } from "./temporaryActs";
import { settleKept } from "./settleAct";
import { approveIsolation, askForJob, changeCrew, closeJob } from "./jobActs";
import { markEnteredInError } from "./ledgerActs";
import { postDetector, takeDetector } from "./detectorActs";
import { draftPermit, nextDayPermit } from "./draftPermit";
import { HAZARD_ACTS } from "./hazardActs";
import {
  acceptPermit,
  approvePermit,
  authorisePermit,
  cancelPermit,
  checkPermit,
  closePermit,
  endWatch,
  handOver,
  handBackPermit,
  inspectPermit,
  issuePermit,
  resumePermit,
  revalidatePermit,
  signOff,
  signOn,
  stopWork,
} from "./permitActs";
import { PERMIT_LOG_ACTS } from "./permitLogActs";
import { acceptDeviation, adjustPlan } from "./planActs";
import { importPlant } from "./plantActs";
import {
  authoriseRemoval,
  callOffRemoval,
  cutLock,
  lookedFor,
  openRemoval,
  readRemoval,
  triedToReach,
} from "./removalActs";
import { swapPoint } from "./swapAct";

/** Everything a user can do, by the name it has in the ledger. */
export const ACTS: ReadonlyMap<string, Act> = new Map(
  [
    importPlant,
    askForJob,
    approveIsolation,
    changeCrew,
    adjustPlan,
    acceptDeviation,
    doStep,
    proveAgain,
    canDoStep,
    cannotDoStep,
    replan,
    settleKept,
    hangOnBox,
    takeOffBox,
    askTest,
    agreeToTest,
    startTest,
    callOffTest,
    enterGear,
    withdrawGear,
    bumpGear,
    handOutGear,
    giveBackGear,
    exchangeProcedures,
    reviewIsolation,
    draftPermit,
    nextDayPermit,
    checkPermit,
    authorisePermit,
    approvePermit,
    issuePermit,
    acceptPermit,
    signOn,
    signOff,
    handOver,
    stopWork,
    resumePermit,
    revalidatePermit,
    handBackPermit,
    endWatch,
    inspectPermit,
    closePermit,
    cancelPermit,
    ...PERMIT_LOG_ACTS,
    ...HAZARD_ACTS,
    postDetector,
    takeDetector,
    swapPoint,
    startReturn,
    closeJob,
    markEnteredInError,
    openRemoval,
    lookedFor,
    triedToReach,
    authoriseRemoval,
    cutLock,
    readRemoval,
    callOffRemoval,
    setUpJob,
    attachFigure,
    countStore,
  ].map((act) => [act.type, act as unknown as Act]),
);
