import { Fragment } from "react";
import { readingWords } from "@/core/permit/record/logWords";
import { figure } from "@/core/units/format";
import { peopleToChoose } from "@/server/job/jobView";
import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField } from "@/ui/act/Field";
import { AirForms } from "@/ui/permit/AirForms";
import { PaperReading } from "@/ui/permit/PaperReading";
import { SampleTimer } from "@/ui/permit/SampleTimer";
import { clock, span } from "@/ui/text/when";

type Props = Readonly<{ permit: PermitView; person: Person; now_ms: number; timeZone: string }>;

/** The air, point by point, with the one act that comes next; the purge, and instruments that send by themselves. */
export function Air({ permit, person, now_ms, timeZone }: Props) {
  if (permit.air === null) return <Detectors permit={permit} person={person} timeZone={timeZone} />;
  const { state, samples, gases, limits, instruments, every_min, cover, needed, asked } = permit.air;
  const isCovered = cover !== null && !permit.air.coverRead;
  const outside = state.points.filter(
    ({ point }) => permit.isAnyoneInside || !permit.air!.insidePoints.includes(point),
  );
  const first = isCovered
    ? { point: cover }
    : (outside.find(({ wants }) => wants !== null) ??
      state.points.find(({ wants }) => wants !== null) ??
      state.points[0]);
  const pocket = state.points.find(({ last }) => (last?.against.length ?? 0) > 0);
  return (
    <section aria-labelledby="air" className="space-y-4">
      <div>
        <h2 id="air" className="text-lg font-semibold">
          Gas test: {state.fit ? "acceptable" : "not acceptable"}
        </h2>
        <p className="text-sm opacity-85">
          Oxygen {limits.oxygen.least * 100} to {limits.oxygen.most * 100} %,{" "}
          {limits.flammableBelow === 0
            ? "nothing flammable at all"
            : `flammable below ${limits.flammableBelow * 100} % of the lower limit`}
          . Read again every {every_min} min, after every break and stop; at most 30 min old when work begins.
          {needed === null ? (
            <strong> One point alone takes longer than a round may: use a shorter hose or a faster pump.</strong>
          ) : (
            needed > 1 && (
              <strong> {needed} instruments are needed: one alone takes longer than 20 min about its round.</strong>
            )
          )}
          {state.until_ms !== null && Number.isFinite(state.until_ms) && (
            <>
              {" "}
              Good until <strong className="num">{clock(state.until_ms, timeZone)}</strong>.
            </>
          )}
        </p>
      </div>
      {asked.length > 0 && (
        <p className="text-sm">
          May be here:{" "}
          {asked.map(({ gas, why, seen }, index) => (
            <Fragment key={gas}>
              {index > 0 && "; "}
              {seen ? gas : <strong>{gas}, which no instrument here sees</strong>} ({why})
            </Fragment>
          ))}
          .
        </p>
      )}
      <ul aria-label="Test points" className="border-base-300 divide-base-300 divide-y border-y">
        {state.points.map(({ point, last, wants }) => (
          <li key={point} className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)] gap-x-4 py-2">
            <span className="font-medium">{point}</span>
            <span>
              {last && (
                <span className="block">
                  <span className="num">{clock(last.at_ms, timeZone)}</span>, {readingWords(last.reading)}
                </span>
              )}
              {wants === null ? "valid" : <strong>{wants}</strong>}
            </span>
          </li>
        ))}
      </ul>
      {mayDo(permit, person, "begin sample") && first && (
        <AirForms
          permit={permit.number}
          points={isCovered ? [cover] : state.points.map(({ point }) => point)}
          next={first.point}
          sample={samples[0] ?? null}
          gases={gases}
          fit={instruments.filter(({ fault }) => fault === null).map(({ number }) => number)}
          toBump={instruments.filter(({ fault }) => fault === "gear not bumped").map(({ number }) => number)}
          now_ms={now_ms}
        />
      )}
      {mayDo(permit, person, "enter paper reading") && (
        <details>
          <summary className="cursor-pointer font-medium">A reading from paper, while the server was down</summary>
          <p className="my-2 text-sm">
            Judged as it would have been then. One drawn before the last thing on record is kept and counts for nothing,
            unless it was bad.
          </p>
          <PaperReading
            permit={permit.number}
            points={[...(cover === null ? [] : [cover]), ...state.points.map(({ point }) => point)]}
            gases={gases}
            testers={peopleToChoose().filter(({ roles }) => roles.includes("gas tester"))}
          />
        </details>
      )}
      {pocket && mayDo(permit, person, "flush") && (
        <ActForm
          act="permit.flush"
          label="Blow out a pocket"
          fixed={{ permit: permit.number, point: pocket.point }}
          button="Blown out"
          compact
        >
          <Field
            label={`Hose aimed at ${pocket.point} for, s`}
            name="held_s"
            inputMode="numeric"
            autoComplete="off"
            className="num w-28"
          />
        </ActForm>
      )}
      <Accounts permit={permit} person={person} />
      <Purge permit={permit} person={person} now_ms={now_ms} />
      <Detectors permit={permit} person={person} timeZone={timeZone} />
    </section>
  );
}

const CAUSES = [
  ["source", "a source was found"],
  ["pocket", "a pocket"],
  ["instrument fault", "the instrument: a second one showed it"],
  ["not found", "not found: the issuer decides, and a gas detector stands there"],
] as const;
const WHY_ODD = [
  ["humid", "humid air"],
  ["warm", "warm air"],
  ["gas", "gas, within its limits"],
  ["drift", "drift: read it with a second instrument"],
] as const;

/** What was read and still has to be accounted for: bad air its cause, odd air its reason, a gas nobody sees its measure. */
function Accounts({ permit, person }: Pick<Props, "permit" | "person">) {
  const { unexplained, withoutCause, asked } = permit.air!;
  const fixed = { permit: permit.number };
  const blind = asked.filter(({ seen, replaced }) => !seen && !replaced);
  return (
    <>
      {withoutCause.length > 0 && mayDo(permit, person, "find cause") && (
        <ActForm
          act="permit.find-cause"
          label="Cause of the bad reading"
          fixed={fixed}
          pin
          compact
          button="Sign the cause"
        >
          <SelectField label="Bad air at" name="point" className="w-56">
            {withoutCause.map((point) => (
              <option key={point}>{point}</option>
            ))}
          </SelectField>
          <SelectField label="It came from" name="cause" className="w-64">
            {CAUSES.map(([cause, words]) => (
              <option key={cause} value={cause}>
                {words}
              </option>
            ))}
          </SelectField>
          <Field label="What was found" name="words" autoComplete="off" className="w-72" maxLength={500} />
        </ActForm>
      )}
      {unexplained.length > 0 && mayDo(permit, person, "explain") && (
        <div className="space-y-2">
          <p className="text-sm">Not as outside air is: {unexplained.map(({ words }) => words).join("; ")}.</p>
          <ActForm act="permit.explain-air" label="Explain a reading" fixed={fixed} pin compact button="Sign it">
            <SelectField label="Reading at" name="point" className="w-56">
              {unexplained.map(({ point }) => (
                <option key={point}>{point}</option>
              ))}
            </SelectField>
            <SelectField label="Because of" name="cause" className="w-64">
              {WHY_ODD.map(([cause, words]) => (
                <option key={cause} value={cause}>
                  {words}
                </option>
              ))}
            </SelectField>
            <Field label="How it is known" name="words" autoComplete="off" className="w-72" maxLength={500} />
          </ActForm>
        </div>
      )}
      {blind.length > 0 && mayDo(permit, person, "replace reading") && (
        <ActForm
          act="permit.replace-reading"
          label="In place of a reading"
          fixed={fixed}
          pin
          compact
          button="Sign the measure"
        >
          <SelectField label="Gas that nothing here sees" name="gas" className="w-56">
            {blind.map(({ gas }) => (
              <option key={gas}>{gas}</option>
            ))}
          </SelectField>
          <Field
            label="What is done instead"
            name="words"
            autoComplete="off"
            className="w-96 max-w-full"
            maxLength={500}
          />
        </ActForm>
      )}
    </>
  );
}

function Purge({ permit, person, now_ms }: Omit<Props, "timeZone">) {
  const { purge } = permit;
  if (purge === null) return null;
  const may = mayDo(permit, person, "begin purge");
  return (
    <div>
      <h3 className="font-semibold">Purge</h3>
      <p className="mb-2">
        {purge.need_s === null
          ? "This blower never gets the air clean."
          : `${span(Math.ceil(purge.need_s / 60) * 60_000)} each time, by the longer of rule and sum. `}
        {purge.running ? (
          <>
            Running: <SampleTimer ready_ms={purge.ready_ms!} now_ms={now_ms} done="long enough." />
          </>
        ) : purge.done ? (
          <strong>Done since anybody was last inside.</strong>
        ) : (
          <strong>Not done since anybody was last inside.</strong>
        )}
      </p>
      <p className="mb-2">
        {purge.ventilated ? (
          "The blower runs for those inside."
        ) : (
          <strong>Nothing ventilates it for those inside.</strong>
        )}
      </p>
      <div className="flex flex-wrap gap-3">
        {may && !purge.running && !purge.ventilated && (
          <ActForm
            act="permit.begin-ventilation"
            label="Ventilate"
            fixed={{ permit: permit.number }}
            button="It ventilates from now on"
            compact
          />
        )}
        {may && purge.ventilated && (
          <ActForm
            act="permit.end-ventilation"
            label="The blower stands"
            fixed={{ permit: permit.number }}
            button={permit.isAnyoneInside ? "The blower stands: everybody out" : "The blower stands"}
            compact
          />
        )}
        {may && !purge.running && !permit.isAnyoneInside && (
          <ActForm
            act="permit.begin-purge"
            label="Begin to purge"
            fixed={{ permit: permit.number }}
            button={purge.done ? "Purge it once more" : "It is purged from now on"}
            compact
          />
        )}
        {may && purge.running && (
          <ActForm
            act="permit.end-purge"
            label="End the purge"
            fixed={{ permit: permit.number }}
            button="End the purge"
            compact
          />
        )}
      </div>
    </div>
  );
}

function Detectors({ permit, person, timeZone }: Omit<Props, "now_ms">) {
  const { detectors, freeDetectors } = permit;
  const mayPost = person.roles.some((role) => ["gas tester", "fire watch", "attendant", "holder"].includes(role));
  if (detectors.length === 0 && (freeDetectors.length === 0 || !mayPost)) return null;
  return (
    <div>
      <h3 className="font-semibold">Instruments that send by themselves</h3>
      {detectors.length > 0 && (
        <ul aria-label="Posted instruments" className="my-2 space-y-1">
          {detectors.map(({ id, place, against, silent, sent }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-4">
              <span className="tag">{id}</span>
              <span>{place}</span>
              <span className={silent || against.length > 0 ? "font-semibold" : ""}>
                {silent ? "silent" : against.length > 0 ? against.join(", ") : "well"}
              </span>
              {sent && (
                <span className="num">
                  {sent.pressure_Pa !== null ? figure(sent.pressure_Pa, "gauge", person.units) : readingWords(sent)},
                  battery {Math.round(sent.battery * 100)} %
                </span>
              )}
              {mayPost && permit.state !== "live" && (
                <ActForm
                  act="detector.take"
                  label={`Take ${id} away`}
                  fixed={{ permit: permit.number, detector: id }}
                  button="Take away"
                  compact
                />
              )}
            </li>
          ))}
        </ul>
      )}
      {mayPost && freeDetectors.length > 0 && !["closed", "cancelled", "work done"].includes(permit.state) && (
        <>
          <p className="mb-1 text-sm opacity-85">
            At a test point it keeps that point fresh, if it sees all that is asked.
          </p>
          <ActForm
            act="detector.post"
            label="Post a detector"
            fixed={{ permit: permit.number }}
            button="Post it"
            compact
          >
            <SelectField label="Detector" name="detector" className="tag w-32">
              {freeDetectors.map((id) => (
                <option key={id}>{id}</option>
              ))}
            </SelectField>
            <SelectField label="It stands" name="place" className="w-56">
              {permit.detectorPlaces.map((place) => (
                <option key={place}>{place}</option>
              ))}
            </SelectField>
          </ActForm>
        </>
      )}
      <p className="sr-only">Times are in {timeZone}.</p>
    </div>
  );
}
