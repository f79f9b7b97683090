import type { PermitDetails } from "../../src/core/permit/kinds/details";
import type { GasSheet } from "../../src/core/gear/gasSheet";
import { STRICT_ENTRY } from "../../src/core/atmosphere/airLimits";
import type { NotHeld } from "../../src/core/refusal/notHeld";
import type { PersonId, Role } from "../../src/core/people/roles";
import { decidePermit } from "../../src/core/permit/life/permitLife";
import type { PermitAct, PermitCommand, PermitFacts, PermitLife } from "../../src/core/permit/record/permitTypes";
import { profileOf } from "../../src/core/requirement/profiles";

export const HOUR = 3_600_000;
export const MINUTE = 60_000;

/** Cora coordinates, isa issues, ana approves, hal and hob lead, wim and will work, gil tests gas, fay and fin watch, ada and amy attend. */
export const CREW: Readonly<Record<string, readonly Role[]>> = {
  cora: ["coordinator"],
  isa: ["issuer"],
  ana: ["approver"],
  hal: ["holder", "worker"],
  hob: ["holder", "worker", "issuer"],
  wim: ["worker"],
  will: ["worker"],
  gil: ["gas tester"],
  fay: ["fire watch"],
  fin: ["fire watch"],
  ada: ["attendant"],
  amy: ["attendant"],
};

export const idOf = (name: string) => name as PersonId;

export const DETAILS: Readonly<{ [K in PermitDetails["kind"]]: Extract<PermitDetails, { kind: K }> }> = {
  general: { kind: "general" },
  "hot work": {
    kind: "hot work",
    works: ["grinding"],
    inEquipment: false,
    x_m: 50,
    y_m: 50,
    level_m: 0,
    height_m: 0,
    welders: 1,
    levels: 1,
    outOfSight: false,
    cylinders_m: 0,
    noCylinders: true,
    afterWatch: "class 3",
    points: ["at the work", "at the edge"],
    gases: [],
    hose_m: 0,
    bore_m: 0.004,
    pump_m3_s: 0.5e-3 / 60,
    t90_s: 30,
  },
  "confined space entry": {
    kind: "confined space entry",
    space: "T-1",
    badAir: true,
    engulfing: true,
    trapping: false,
    otherHazard: true,
    otherWords: "heat",
    depth_m: 2.4,
    travel_m: 0,
    width_m: 1.2,
    corners: 1,
    ducts: 0,
    volume_m3: 20,
    chimneys: 1,
    blower_m3_s: 0.5,
    bends: 0,
    ventilation: "FAN-1",
    gases: ["hydrogen sulphide"],
    most: 2,
    talk_min: 10,
    rescue: "Winch at the manhole, set and harness on.",
    rehearsed_ms: 0,
    hose_m: 5,
    bore_m: 0.004,
    pump_m3_s: 0.5e-3 / 60,
    t90_s: 30,
  },
  "line break": { kind: "line break", line: "6-inch solvent", flange: "F-1", release: "to the drum" },
  "electrical work": {
    kind: "electrical work",
    voltage_V: 400,
    gloves: "GL-1",
    sanction: false,
    live: false,
    liveReason: "",
  },
  "work at height": { kind: "work at height", height_m: 6, protection: "rails", harnesses: [] },
  "pressure test": {
    kind: "pressure test",
    medium: "water",
    pressure_Pa: 20e5,
    volume_m3: 2,
    gamma: 1.4,
    x_m: 50,
    y_m: 50,
    gauge: "PG-1",
  },
  "safeguard bypass": {
    kind: "safeguard bypass",
    safeguard: "LSHH-1",
    owner: "hal",
    why: "its float is stuck",
    compensation: "somebody at the sight glass",
    until_ms: 24 * HOUR,
  },
  "minor isolation": { kind: "minor isolation" },
};

export function draftOf(details: PermitDetails, more: Partial<PermitLife> = {}): PermitLife {
  return {
    number: "P-1",
    details,
    state: "draft",
    holder: idOf("hal"),
    issuer: null,
    closedBy: null,
    validFrom_ms: 0,
    validTo_ms: 8 * HOUR,
    signOns: [],
    log: [],
    ...more,
  };
}

/** An instrument of which everything is known: 5 m of 4 mm hose at half a litre a minute. */
export const SHEET: GasSheet = {
  reads: ["oxygen", "flammable", "hydrogen sulphide", "carbon monoxide"],
  burns: "catalytic",
  calibrated: "methane",
  error: { oxygen: 0.002, flammable: 0.01, toxic: 0.5e-6 },
  zero: { flammable: 0.01, toxic: 0.5e-6 },
  hose_m: 5,
  bore_m: 0.004,
  pump_m3_s: 0.5e-3 / 60,
  t90_s: 30,
};

export const seen = (...gases: string[]) => gases.map((gas) => ({ gas, why: "the register says so", seen: true }));

/** The isolation of a permit, and why it is not held. */
export const isolationNow = (notHeld: NotHeld | null) => ({ number: "S-1", notHeld });

/** Facts of a site where all is well. */
export function wellFacts(more: Partial<PermitFacts> = {}): PermitFacts {
  return {
    isolations: [isolationNow(null)],
    lockHangs: () => undefined,
    personalLock: () => null,
    firstOn: [],
    standingHangs: true,
    stale: [],
    litBy: null,
    exchangeMissing: () => null,
    notInducted: () => null,
    notAppointed: () => null,
    minor: null,
    pointsToLock: [],
    crewFault: () => null,
    rolesOf: (id) => CREW[id] ?? [],
    nameOf: (id) => id,
    timeOf: (at) => `${Math.floor(at / HOUR)} h ${Math.round((at % HOUR) / MINUTE)} min`,
    profile: profileOf("strict"),
    places: ["P-7"],
    plannedFor: ["open", "touch", "enter", "hot"],
    shortfalls: [],
    standIns: [],
    acceptedUntil_ms: null,
    hazardsOpen: [],
    muster: null,
    required: [],
    ofJob: [],
    zone: [],
    watchClass: "class 3",
    airLimits: STRICT_ENTRY,
    withdrawnInstruments: [],
    gasSheet: () => SHEET,
    zeroedAt_ms: () => 0,
    drawsElsewhere: () => null,
    insidePoints: [],
    coverPoint: null,
    gases: [],
    badElsewhere: [],
    testPoints: [],
    clashes: [],
    decidedElsewhere: [],
    detectors: [],
    earths: [],
    gearFault: () => null,
    atOtherWork: () => null,
    elsewhere: () => null,
    shiftChanges_ms: () => [],
    ...more,
  };
}

export function command(name: string | null, at_ms: number, act: PermitAct): PermitCommand {
  return {
    ...act,
    by: name === null ? null : idOf(name),
    roles: name === null ? [] : CREW[name]!,
    at_ms,
  } as PermitCommand;
}

/** What whoever watches says of themselves. */
export const WATCH_READY: PermitAct = { type: "tick", ask: "watch ready", words: "" };

/** A permit that is acted on: throws where an act is refused, unless the refusal is asked for. */
export class Acting {
  constructor(
    public permit: PermitLife,
    public facts: PermitFacts,
    public at_ms = HOUR,
  ) {}

  did(name: string, act: PermitAct): this {
    const decided = decidePermit(this.permit, command(name, this.at_ms, act), this.facts);
    if (!decided.ok) throw new Error(`${act.type} by ${name}: ${JSON.stringify(decided.refusal)}`);
    this.permit = decided.value;
    // Who takes the watch says that they are ready for it.
    return act.type === "take post" && act.post === "fire watch" ? this.did(name, WATCH_READY) : this;
  }

  /** The code of the refusal, or "accepted"; nothing changes either way. */
  code(name: string, act: PermitAct): string {
    const decided = decidePermit(this.permit, command(name, this.at_ms, act), this.facts);
    return decided.ok ? "accepted" : decided.refusal.code;
  }

  later(ms: number): this {
    this.at_ms += ms;
    return this;
  }

  /** Everything that is ticked by hand, ticked. */
  ticked(asks: readonly { id: string; byHand: boolean; only?: string; unmet: string | null }[]): this {
    for (const ask of asks) {
      if (ask.byHand && ask.unmet !== null && !ask.only) this.did("cora", { type: "tick", ask: ask.id, words: "" });
    }
    return this;
  }

  /** Read at each point, in order: air as outside, or what is given. */
  aired(points: readonly string[], bad: Readonly<Record<string, number>> = {}, gases: readonly string[] = []): this {
    for (const point of points) {
      this.did("gil", { type: "begin sample", point, instrument: "GI-1" });
      this.later(3 * MINUTE);
      const reading = {
        oxygen: 0.209,
        flammable: bad[point] ?? 0,
        toxics: gases.map((gas) => ({ gas, fraction: 0 })),
      };
      this.did("gil", { type: "read", point, reading });
    }
    return this;
  }
}
