/** What a row of the ledger holds of an act: what was asked, and what came of it. Older rows lack fields of newer ones. */
type Said = Readonly<Record<string, unknown>>;
type Words = (said: Said, came: Said, nameOf: (id: string) => string) => string;

const text = (value: unknown): string =>
  typeof value === "string" ? value : typeof value === "number" || typeof value === "boolean" ? String(value) : "";
const list = (value: unknown): readonly string[] =>
  Array.isArray(value) ? value.map(text).filter(Boolean) : text(value) === "" ? [] : text(value).split(/\r?\n/);
const entries = (value: unknown): (readonly [string, unknown])[] =>
  typeof value === "object" && value !== null && !Array.isArray(value) ? Object.entries(value) : [];
const count = (value: unknown): number => (Array.isArray(value) ? value.length : 0);
const many = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`;
/** "at the frame" stays so, "frame" becomes "at frame": people name places either way. */
const at = (place: unknown) =>
  (/^(at|in|on|by|near|above|below|under|inside)\b/i.test(text(place)) ? "" : "at ") + text(place);
/** ": said", where something was said. */
const told = (value: unknown) => (text(value).trim() === "" ? "" : `: ${text(value).trim()}`);

/** What the program wrote by itself says of itself what it was. */
const own =
  (words: string): Words =>
  (_, { did }) =>
    text(did) || words;

const plain =
  (words: string): Words =>
  ({ words: said }) =>
    `${words}${told(said)}`;

function signedOn({ lock, points, answer, also }: Said): string {
  const onPoints = entries(points).map(([point, own]) => `${text(own)} on ${point}`);
  const locks = onPoints.length > 0 ? `locks ${onPoints.join(", ")}` : `lock ${text(lock)}`;
  const places = list(answer).join(", ");
  const twice = text(also) === "" ? "" : `; known to be signed on to ${text(also)} as well`;
  return `signed on with ${locks}${places && `; pointed out ${places}`}${twice}`;
}

/** Permits: what each act on one is called once it is done. */
const PERMIT: Readonly<Record<string, Words>> = {
  "permit.draft": ({ words }) => `wrote the permit${told(words)}`,
  "permit.change": ({ words }) => `changed the draft${told(words)}`,
  "permit.next-day": plain("wrote the next day's permit"),
  "permit.check": plain("checked the permit"),
  "permit.authorise": plain("authorised the permit"),
  "permit.approve": plain("approved the permit for safety"),
  "permit.issue": ({ copies }) =>
    `issued the permit${list(copies).length > 0 ? `, copies displayed ${list(copies).join(" and ")}` : ""}`,
  "permit.accept": plain("accepted the permit as its holder"),
  "crew.begin": (_, { crew }) => `began crew round ${text(crew)} at the box, and stands by`,
  "crew.sign-on": (said, _, nameOf) =>
    `stood by in crew round ${text(said.crew)}: ${nameOf(text(said.who))} ${signedOn(said)}`,
  "crew.sign-off": ({ crew, who }, _, nameOf) =>
    `stood by in crew round ${text(crew)}: ${nameOf(text(who))} signed off, own lock off the box`,
  "crew.end": ({ crew }) => `ended crew round ${text(crew)}`,
  "permit.call-roll": ({ seen }, _, nameOf) =>
    `called the roll; answered: ${list(seen).map(nameOf).join(", ") || "nobody"}`,
  "permit.sign-on": signedOn,
  "permit.begin-alone": ({ also }) =>
    `began the minor isolation alone${text(also) === "" ? "" : `; known to be signed on to ${text(also)} as well`}`,
  "permit.end-alone": plain("ended the minor isolation"),
  "permit.sign-off": plain("signed off, own lock off the box"),
  "permit.hand-over": ({ pairs }) => `handed the work over at shift change, ${many(count(pairs), "person", "people")}`,
  "permit.stop": ({ cause, reason }) => `stopped the work, ${text(cause)}${told(reason)}`,
  "permit.stopped-by-itself": own("the work stopped by itself"),
  "permit.blower-stands": own("the blower stands"),
  "permit.watched-anew": own("the watch after the work is kept anew"),
  "permit.ran-out": own("the permit expired"),
  "permit.resume": plain("let the work go on"),
  "permit.revalidate": plain("revalidated the permit for the shift"),
  "permit.extend": plain("extended the permit"),
  "permit.hand-back": ({ left }) =>
    text(left) === "" ? "handed the permit back" : `handed the permit back part done; left to do${told(left)}`,
  "permit.end-watch": plain("ended the post-work watch"),
  "permit.inspect": plain("inspected the place"),
  "permit.close": plain("closed the permit"),
  "permit.cancel": plain("cancelled the permit"),
  "permit.send-back": plain("sent the permit back"),
  "permit.tick": ({ asks, words }) =>
    `confirmed ${many(count(asks), "permit condition")} on the spot${told(words)}: ${list(asks).join("; ")}`,
  "permit.decide-clash": ({ decision, reason }) =>
    `decided a conflict with other work, ${text(decision)}${told(reason)}`,
  "permit.begin-break": plain("began a break"),
  "permit.end-break": plain("ended the break"),
  "permit.go-on": plain("went on after the break"),
  "permit.begin-ventilation": plain("began to ventilate"),
  "permit.end-ventilation": plain("said that the blower stands"),
  "permit.find-cause": ({ point, cause, words }) =>
    `found why the air was bad ${at(point)}, ${text(cause)}${told(words)}`,
  "permit.explain-air": ({ point, cause, words }) => `explained the reading ${at(point)}, ${text(cause)}${told(words)}`,
  "permit.replace-reading": ({ gas, words }) => `said what is done instead of reading ${text(gas)}${told(words)}`,
  "permit.begin-purge": plain("began to purge"),
  "permit.end-purge": plain("ended the purge"),
  "permit.talk": plain("spoke with the people inside"),
  "permit.begin-sample": ({ point, instrument }) => `began to draw a sample ${at(point)} with ${text(instrument)}`,
  "permit.read-air": ({ point, oxygen_percent, flammable_percent, toxics_ppm }) => {
    const read = [
      typeof oxygen_percent === "number" && `oxygen ${oxygen_percent} %`,
      typeof flammable_percent === "number" && `flammable ${flammable_percent} % of the limit`,
      ...entries(toxics_ppm).map(([gas, ppm]) => typeof ppm === "number" && `${gas} ${ppm} ppm`),
    ].filter((one) => one !== false);
    return `read ${at(point)}: ${read.join(", ") || "nothing"}`;
  },
  "permit.enter-paper-reading": ({ point, instrument, reader }, _, nameOf) =>
    `typed in from paper what ${nameOf(text(reader))} read ${at(point)} with ${text(instrument)}`,
  "permit.report-fire": ({ where, what, out }) => `reported a fire ${at(where)}${told(what)}; put out${told(out)}`,
  "permit.note-refusal": ({ who, what, words }) => `wrote down that ${text(who)} would not ${text(what)}${told(words)}`,
  "permit.audit": ({ found, words }) => {
    const wrong = entries(found).flatMap(([look, finding]) => (finding === "not as written" ? [look] : []));
    return `audited the permit on the spot, ${wrong.length === 0 ? "all as written" : `not as written: ${wrong.join(", ")}`}${told(words)}`;
  },
  "permit.flush": ({ point }) => `ventilated a gas pocket ${at(point)}`,
  "permit.take-post": ({ post, ready }) =>
    `took the duty of ${text(post)}${ready === true ? ", with radio, horn and two ways out" : ""}`,
  "permit.leave-post": ({ post }) => `left the duty of ${text(post)}`,
  "permit.go-in": ({ person }, _, nameOf) => `let ${nameOf(text(person))} enter`,
  "permit.come-out": ({ person }, _, nameOf) => `wrote ${nameOf(text(person))} out of the space`,
  "permit.watch-check": plain("made a periodic check"),
  "permit.final-check": plain("made the final check"),
  "permit.safeguard-back": plain("put the safeguard back"),
  "permit.tell-control-room": ({ who }) => `told the control room${told(who)}`,
  "permit.hang-copy": ({ where, second }) => `displayed a ${second === true ? "second " : ""}copy${told(where)}`,
  "permit.return-copy": ({ copy }) => `brought back the copy${told(copy)}`,
  "permit.put-in": ({ what, where }) => `fitted a temporary ${text(what)} ${at(where)}`,
  "permit.take-out": ({ thing }) => `removed ${text(thing)}`,
};

/** Isolations, their points and locks. */
const ISOLATION: Readonly<Record<string, Words>> = {
  "isolation.approve": ({ objective, school, route }, { isolation }) =>
    `approved isolation ${text(isolation)}, ${text(objective)}, ${school === "supply" ? "at the supply" : "at the work"}${
      route === "short" ? ", by the short route: nobody else at risk, never an accident of this kind" : ""
    }`,
  "isolation.re-plan": plain("approved a new plan for the isolation"),
  "isolation.check-locks": (_, { did }) => text(did) || "read the locks",
  "isolation.rehang": ({ point, lock }) => `hung lock ${text(lock)} anew ${at(point)}, where one was not found`,
  "isolation.review": ({ reason, next_h }) => `reviewed the isolation, next in ${text(next_h)} h${told(reason)}`,
  "step.do": ({ words, lock, reading, instrument }, { did }) =>
    [
      text(did) || "did a step",
      text(lock) && `lock ${text(lock)}`,
      typeof reading === "number" && `read ${reading}`,
      text(instrument) && `with ${text(instrument)}`,
    ]
      .filter(Boolean)
      .join(", ") + told(words),
  "step.prove-again": ({ words }, { did }) => `proved again${told(did)}${told(words)}`,
  "step.begin": ({ how, watcher }, _, nameOf) =>
    `began what runs for a time${told(how)}${text(watcher) && `; ${nameOf(text(watcher))} watches it`}`,
  "step.stop": plain("turned off what ran"),
  "step.can": plain("said that a step can be done after all"),
  "step.cannot": ({ why, words }) => `said that a step cannot be done, ${text(why)}${told(words)}`,
  "step.cause": plain("wrote down what a failed proof came from"),
  "step.entered-in-error": plain("took a step back as entered in error"),
  "kept.settle": plain("settled what a device had kept"),
  "point.swap": ({ from, to, lock, reason }) =>
    `swapped ${text(from)} for ${text(to)}${text(lock) && `, lock ${text(lock)}`}${told(reason)}`,
  "isolation.fell": own("the isolation does not hold on the plant of today"),
  "isolation.holds": own("the isolation holds on the plant of today"),
  "isolation.unjudged": own("the isolation was not judged on the plant of today"),
  "return.start": ({ leftSafe }) =>
    text(leftSafe) === "" ? "started restoring" : `started restoring with work left to do, made safe${told(leftSafe)}`,
  "box.hang": ({ lock, role }) =>
    `hung lock ${text(lock)} on the group lock box, first on and last off, as ${text(role)}`,
  "box.take-off": ({ lock }) => `took lock ${text(lock)} off the group lock box`,
  "test.ask": ({ lift, purpose }) => `asked for a temporary de-isolation of ${list(lift).join(", ")}${told(purpose)}`,
  "test.agree": ({ job }) => `agreed to a temporary de-isolation${text(job) && ` for job ${text(job)}`}`,
  "test.start": plain("started a temporary de-isolation"),
  "test.call-off": plain("called off a temporary de-isolation"),
  "removal.open": ({ owner, reason }, _, nameOf) =>
    `asked that the lock of ${nameOf(text(owner))} be removed${told(reason)}`,
  "removal.looked-for": plain("looked for the lock's owner"),
  "removal.tried": plain("tried to reach the lock's owner"),
  "removal.authorise": plain("authorised cutting the lock"),
  "removal.cut": plain("cut the lock"),
  "removal.read": plain("read how the lock came to be cut"),
  "removal.call-off": plain("called the removal off"),
};

/** Jobs, plans, hazards, plant, gear and figures. */
const WORK: Readonly<Record<string, Words>> = {
  "plant.import": (_, { items, revision }) =>
    `imported the plant register, revision ${text(revision)}, ${text(items)} items`,
  "job.ask": ({ title, procedure }) =>
    `requested the job${text(procedure) === "" ? "" : ` by procedure ${text(procedure)}`}${told(title)}`,
  "job.leave-procedure": (_, { left }) => `went on without the procedure${text(left) === "" ? "" : ` ${text(left)}`}`,
  "procedure.write": ({ job, title }, { version }) =>
    `wrote version ${text(version)} of the procedure from ${text(job)}${told(title)}`,
  "procedure.sign": ({ part, version }) => `approved version ${text(version)} of the procedure for the ${text(part)}`,
  "procedure.inspect": ({ version, watched, found, sound }, _, nameOf) =>
    `inspected version ${text(version)} of the procedure with ${list(watched).map(nameOf).join(", ") || "nobody"}, ${
      sound === true ? "found sound" : "found unsound"
    }${told(found)}`,
  "procedure.withdraw": ({ version, reason }) => `withdrew version ${text(version)} of the procedure${told(reason)}`,
  "job.change": ({ title }) => `changed the request${told(title)}`,
  "job.crew": ({ crew }, _, nameOf) => `set the crew: ${list(crew).map(nameOf).join(", ") || "nobody"}`,
  "job.withdraw": plain("withdrew the job"),
  "job.set-up": plain("said what the job is carried out with"),
  "job.close": plain("closed the job, back in service"),
  "plan.adjust": ({ device, to, reason }) => {
    const how =
      to === "pinned"
        ? "included"
        : to === "struck"
          ? "excluded"
          : to === "passing"
            ? "kept passing"
            : "left to the engine";
    return `${how} ${text(device)}${told(reason)}`;
  },
  "deviation.accept": ({ ways, measures, reason }) =>
    `accepted ${many(count(ways), "shortfall")} with ${many(count(measures), "measure")}${told(reason)}`,
  "deviation.renew": ({ reason }) => `accepted the shortfalls for longer${told(reason)}`,
  "hazard.decide": ({ hazard, verdict, reason }) => `${text(verdict)} the hazard ${text(hazard)}${told(reason)}`,
  "hazard.add": ({ hazard, controls }) => `added the hazard ${text(hazard)}: ${list(controls).join("; ")}`,
  "hazard.ask": plain("asked"),
  "hazard.answer": plain("answered"),
  "hazard.conditions": ({ weather, tools }) =>
    `said the weather${told(weather)}; tools: ${list(tools).join(", ") || "none"}`,
  "gear.enter": ({ kind, number }) => `entered ${text(kind)} ${text(number)} in the register`,
  "gear.withdraw": ({ kind, number }) => `withdrew ${text(kind)} ${text(number)} from use`,
  "gear.return": ({ kind, number, words }) => `gave ${text(kind)} ${text(number)} back into use${told(words)}`,
  "gear.bump": ({ number, gas, verdict, zeroed }) =>
    `blew test gas on ${text(number)}, ${text(gas)}: it ${text(verdict)}${zeroed === true ? "; zeroed in fresh air" : ""}`,
  "gear.hand-out": ({ kind, number, job }) => `handed out ${text(kind)} ${text(number)} for ${text(job)}`,
  "gear.give-back": ({ kind, number }) => `took back ${text(kind)} ${text(number)}`,
  "store.count": ({ lines }) => `counted the stores, ${many(count(lines), "line")}`,
  "figure.attach": ({ calculator, note }) => `attached a figure, ${text(calculator).replaceAll("-", " ")}${told(note)}`,
  "contractor.exchange": ({ ours, theirs }) => `exchanged procedures with the contractor${told(ours)}${told(theirs)}`,
  "detector.post": ({ detector, place }) => `placed detector ${text(detector)} ${at(place)}`,
  "detector.take": ({ detector }) => `took detector ${text(detector)} away`,
};

/** People, shifts and the record itself. */
const SITE: Readonly<Record<string, Words>> = {
  "person.enter": ({ name, roles }) => `entered ${text(name)}: ${list(roles).join(", ")}`,
  "person.enter-list": (_, { did }) => `entered from a list: ${text(did).replace(/^[^:]*: /, "")}`,
  "person.entered": ({ name, roles }) => `${text(name)} was entered: ${list(roles).join(", ")}`,
  "person.change": ({ person, roles }, _, nameOf) =>
    `changed what ${nameOf(text(person))} may do: ${list(roles).join(", ")}`,
  "person.leave": ({ person, words }, _, nameOf) => `wrote that ${nameOf(text(person))} has left${told(words)}`,
  "person.come-back": ({ person }, _, nameOf) => `let ${nameOf(text(person))} sign in again`,
  "person.new-secrets": ({ person }, _, nameOf) => `made password and PIN of ${nameOf(text(person))} anew`,
  "person.let-in": ({ person }, _, nameOf) => `forgave wrong tries of ${nameOf(text(person))}`,
  "person.own-pin": plain("chose a new PIN"),
  "person.own-password": plain("chose a new password"),
  "person.sign-out-everywhere": ({ person }, _, nameOf) =>
    text(person) === "" ? "signed out everywhere" : `signed ${nameOf(text(person))} out everywhere`,
  "site.stop": ({ area, reason }, { permits, people }) =>
    `stopped all work ${text(area) === "" ? "on the site" : at(area)}, ${text(permits)} permits, ${text(people)} people${told(reason)}`,
  "muster.seen": ({ person }, _, nameOf) => `saw ${nameOf(text(person))}`,
  "muster.not-seen": ({ person }, _, nameOf) => `took back that ${nameOf(text(person))} was seen`,
  "muster.close": plain("closed the muster: everybody was seen"),
  "conflict.decide": ({ conflict, reason }, { with: other }) =>
    `decided a conflict${text(other) && ` with ${text(other)}`}, ${text(conflict).replace(/ \|.*/, "")}${told(reason)}`,
  "clock.stepped": own("the server's clock was set: what was timed by it is done again"),
  "shift.hand-over": ({ remarks, coming }, _, nameOf) =>
    `handed the shift over to ${nameOf(text(coming))}${told(remarks)}`,
  "shift.answer": plain("answered what was asked at a handover"),
  "clock.settle": plain("said that the clock is right"),
  "ledger.entered-in-error": ({ seq, reason }) => `marked row ${text(seq)} as entered in error${told(reason)}`,
  "alarm.answer": (_, { after_s }) => `answered the alarm after ${text(after_s)} s`,
  "access.make": (_, { did }) => text(did) || "made a token",
  "access.revoke": (_, { did }) => text(did) || "revoked a token",
  "instrument.enter": (_, { did }) => text(did) || "entered an instrument",
  "instrument.new-token": (_, { did }) => text(did) || "gave an instrument a new token",
  "instrument.revoke": (_, { did }) => text(did) || "shut an instrument out",
  "instrument.entered": ({ id, kind }) => `${text(id)} was entered, ${text(kind)}`,
  "demo.made": plain("the demo was made"),
  "state.taken-over": own("the state was taken into the record"),
  "record.recovered": own("the record goes on from a backup"),
};

const ALL: Readonly<Record<string, Words>> = { ...PERMIT, ...ISOLATION, ...WORK, ...SITE };

/** Act types that have words of their own. */
export const ROW_TYPES: readonly string[] = Object.keys(ALL);

/**
 * A row of the ledger as a sentence without its subject, who and when stand before it: "issued the permit, copies displayed at
 * gate 2". Never throws, for a row of long ago may hold anything. A type that is not known keeps its code.
 */
export function rowSentence(type: string, said: unknown, came: unknown, nameOf: (id: string) => string): string {
  const of = ALL[type];
  const record = (value: unknown): Said => (typeof value === "object" && value !== null ? (value as Said) : {});
  return of === undefined ? type : of(record(said), record(came), nameOf);
}
