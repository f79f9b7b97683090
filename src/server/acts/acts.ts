import type { Act } from "./act";
import { attachFigure, countStore, setUpJob } from "./dayActs";
import { doStep, reviewIsolation, startReturn } from "./isolationActs";
import { approveIsolation, askForJob, closeJob } from "./jobActs";
import { markEnteredInError } from "./ledgerActs";
import {
  acceptPermit,
  cancelPermit,
  closePermit,
  draftPermit,
  handBackPermit,
  issuePermit,
  signOff,
  signOn,
} from "./permitActs";
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
    adjustPlan,
    acceptDeviation,
    doStep,
    reviewIsolation,
    draftPermit,
    issuePermit,
    acceptPermit,
    signOn,
    signOff,
    handBackPermit,
    closePermit,
    cancelPermit,
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
