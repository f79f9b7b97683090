import type { Act } from "../act/act";
import { attachFigure, countStore, setUpJob } from "../figures/dayActs";
import { hangOnBox, takeOffBox } from "../box/boxActs";
import { exchangeProcedures } from "../box/exchangeAct";
import { bumpGear, enterGear, giveBackGear, handOutGear, returnGear, withdrawGear } from "../gear/gearActs";
import {
  beginStep,
  stopStep,
  canDoStep,
  doStep,
  enteredInError,
  findCause,
  proveAgain,
  startReturn,
} from "../isolation/isolationActs";
import { cannotDoStep, replan } from "../isolation/replanActs";
import { reviewIsolation } from "../isolation/reviewAct";
import { agreeToTest, askTest, callOffTest, startTest } from "../isolation/temporaryActs";
import { decideConflictAct } from "../board/conflicts";
import { settleClock } from "../permit/clockAct";
import { answerHandover, handOverTheShift } from "../handover/handoverActs";
import { CREW_ACTS } from "../crew/crewActs";
import { MUSTER_ACTS } from "../muster/musterActs";
import { settleKept } from "./settleAct";
import { changeJob, withdrawJob } from "../job/changeJob";
import { approveIsolation, askForJob, changeCrew, closeJob, leaveProcedure } from "../job/jobActs";
import { PROCEDURE_ACTS } from "../library/procedureActs";
import { answerAlarm } from "../ledger/alarmActs";
import { markEnteredInError } from "../ledger/ledgerActs";
import { postDetector, takeDetector } from "../permit/detectorActs";
import { enterInstrument, newToken, revokeToken } from "../permit/instrumentActs";
import { changeDraft, draftPermit, nextDayPermit } from "../permit/draftPermit";
import { HAZARD_ACTS } from "../hazard/hazardActs";
import {
  acceptPermit,
  approvePermit,
  authorisePermit,
  cancelPermit,
  sendBack,
  checkPermit,
  closePermit,
  endWatch,
  extendPermit,
  beginAlone,
  endAlone,
  handOver,
  handBackPermit,
  inspectPermit,
  issuePermit,
  resumePermit,
  revalidatePermit,
  signOff,
  signOn,
  stopWork,
} from "../permit/permitActs";
import { PERMIT_LOG_ACTS } from "../permit/permitLogActs";
import { PERMIT_REPORT_ACTS } from "../permit/permitReportActs";
import { acceptDeviation, adjustPlan, renewDeviations } from "../job/planActs";
import { importPlant } from "../plant/plantActs";
import {
  authoriseRemoval,
  callOffRemoval,
  cutLock,
  lookedFor,
  openRemoval,
  readRemoval,
  triedToReach,
} from "../box/removalActs";
import { checkLocks, rehangLock } from "../isolation/lockCheckActs";
import { swapPoint } from "../isolation/swapAct";
import { accessActs } from "../access/accessActs";
import { PEOPLE_ACTS } from "./peopleActs";
import { enterList } from "./peopleListAct";

/** Everything a user can do, by the name it has in the ledger. */
export const ACTS: ReadonlyMap<string, Act> = new Map(
  [
    importPlant,
    askForJob,
    approveIsolation,
    leaveProcedure,
    ...PROCEDURE_ACTS,
    changeCrew,
    settleClock,
    handOverTheShift,
    answerHandover,
    decideConflictAct,
    ...MUSTER_ACTS,
    changeJob,
    withdrawJob,
    adjustPlan,
    acceptDeviation,
    renewDeviations,
    doStep,
    proveAgain,
    beginStep,
    stopStep,
    canDoStep,
    findCause,
    enteredInError,
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
    returnGear,
    bumpGear,
    handOutGear,
    giveBackGear,
    exchangeProcedures,
    reviewIsolation,
    draftPermit,
    changeDraft,
    nextDayPermit,
    checkPermit,
    authorisePermit,
    approvePermit,
    issuePermit,
    acceptPermit,
    signOn,
    beginAlone,
    endAlone,
    signOff,
    handOver,
    stopWork,
    resumePermit,
    revalidatePermit,
    extendPermit,
    handBackPermit,
    endWatch,
    inspectPermit,
    closePermit,
    cancelPermit,
    sendBack,
    ...CREW_ACTS,
    ...PERMIT_LOG_ACTS,
    ...PERMIT_REPORT_ACTS,
    ...HAZARD_ACTS,
    ...PEOPLE_ACTS,
    ...accessActs((type) => ACTS.get(type)),
    enterList,
    postDetector,
    takeDetector,
    enterInstrument,
    newToken,
    revokeToken,
    swapPoint,
    checkLocks,
    rehangLock,
    startReturn,
    closeJob,
    markEnteredInError,
    answerAlarm,
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
  ].map((act) => [act.type, act as Act]),
);

/** What an act is called: "issue a permit"; of one that is no more, its code. */
export const actWords = (type: string): string => ACTS.get(type)?.words ?? type;
