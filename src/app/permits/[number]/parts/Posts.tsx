import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField, Tick } from "@/ui/act/Field";
import { SampleTimer } from "@/ui/permit/SampleTimer";
import { clock, dayAndClock } from "@/ui/text/when";

type Props = Readonly<{ permit: PermitView; person: Person; now_ms: number; timeZone: string }>;

/** Who watches or attends, without a gap; who is inside a space. */
export function Posts({ permit, person, now_ms, timeZone }: Props) {
  const { post, posted, watches, watchersNeeded } = permit;
  if (post === null) return null;
  const fixed = { permit: permit.number, post };
  const isOn = posted.some((one) => one.person === person.id);
  const needs = post === "fire watch" ? `${watchersNeeded} needed, through breaks too` : "no other duty, never inside";
  return (
    <section aria-labelledby="post" className="space-y-4">
      <div>
        <h2 id="post" className="text-lg font-semibold">
          {post === "fire watch" ? "Fire watch" : "Attendant"}:{" "}
          {posted.length === 0 ? "nobody on duty" : posted.map(({ name }) => name).join(", ")}
        </h2>
        <p className="text-sm opacity-85">{needs}. The next is on before the last is off.</p>
      </div>
      {mayDo(permit, person, "take post") && !isOn && person.roles.includes(post) && (
        <ActForm act="permit.take-post" label="Take the duty" fixed={fixed} pin button="I am on duty" tone="strong">
          {post === "fire watch" && (
            <Tick name="ready" label="My radio was answered, I have a horn or whistle, and two ways out" />
          )}
        </ActForm>
      )}
      <Inside permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />
      {isOn && (
        <ActForm act="permit.leave-post" label="Leave the duty" fixed={fixed} pin button="I leave the duty" compact />
      )}
      {watches.length > 0 && (
        <ul aria-label="Watch log" className="border-base-300 divide-base-300 divide-y border-y">
          {watches.map(({ name, from_ms, to_ms }) => (
            <li key={`${name} ${from_ms}`} className="flex flex-wrap gap-x-4 py-1.5">
              <span className="font-medium">{name}</span>
              <span className="num">
                {dayAndClock(from_ms, timeZone)} to {to_ms === null ? "now" : clock(to_ms, timeZone)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Inside({ permit, person, now_ms, timeZone }: Props) {
  const { entry } = permit;
  if (entry === null) return null;
  const fixed = { permit: permit.number };
  // Who is inside stands above, with the button that lets them out.
  const stays = entry.stays.flatMap(({ out_ms, ...stay }) => (out_ms === null ? [] : [{ ...stay, out_ms }]));
  const attends = permit.posted.some((one) => one.person === person.id);
  const outside = permit.signOns.filter(
    ({ off_ms, personId }) => off_ms === null && !entry.inside.some((one) => one.person === personId),
  );
  return (
    <div className="space-y-3">
      <h2 className="text-lg font-semibold">
        Inside now: <span className="num">{entry.inside.length}</span> of at most{" "}
        <span className="num">{entry.most}</span>
      </h2>
      {entry.talkDue_ms !== null && (
        <p>
          Speak to them by <strong className="num">{clock(entry.talkDue_ms, timeZone)}</strong>, in{" "}
          <SampleTimer ready_ms={entry.talkDue_ms} now_ms={now_ms} done="now: it is overdue." />
        </p>
      )}
      {attends && entry.inside.length > 0 && (
        <ActForm
          act="permit.talk"
          label="Spoken to"
          fixed={fixed}
          button="Spoken to, all answered"
          tone="strong"
          compact
        />
      )}
      {entry.inside.map(({ person: id, name, in_ms }) => (
        <div key={id} className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <p className="grow">
            <strong>{name}</strong> in since <span className="num">{clock(in_ms, timeZone)}</span>
          </p>
          {(attends || id === person.id || permit.holderId === person.id) && (
            <ActForm
              act="permit.come-out"
              label={`${name} out`}
              fixed={{ ...fixed, person: id }}
              button="Is out"
              compact
            />
          )}
        </div>
      ))}
      {attends && permit.state === "live" && outside.length > 0 && (
        <ActForm act="permit.go-in" label="Let in" fixed={fixed} button="Goes in" tone="strong" compact>
          <SelectField label="Who goes in" name="person" className="w-52">
            {outside.map(({ personId, name }) => (
              <option key={personId} value={personId}>
                {name}
              </option>
            ))}
          </SelectField>
        </ActForm>
      )}
      {stays.length > 0 && (
        <ul aria-label="Entry log" className="border-base-300 divide-base-300 divide-y border-y">
          {stays.map(({ name, in_ms, out_ms }) => (
            <li key={`${name} ${in_ms}`} className="flex flex-wrap gap-x-4 py-1.5">
              <span className="font-medium">{name}</span>
              <span className="num">
                in {clock(in_ms, timeZone)}, out {clock(out_ms, timeZone)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The watch after hot work: how long, which looks are due, what is left. */
export function AfterWatch({ permit, person, timeZone }: Omit<Props, "now_ms">) {
  const { afterWatch } = permit;
  if (afterWatch === null || permit.state !== "watching") return null;
  const fixed = { permit: permit.number };
  const may = (type: Parameters<typeof mayDo>[2]) => mayDo(permit, person, type);
  return (
    <section aria-labelledby="after" className="border-base-content space-y-4 border-t-2 pt-3">
      <h2 id="after" className="text-lg font-semibold">
        Watch until <span className="num">{dayAndClock(afterWatch.until_ms, timeZone)}</span>
      </h2>
      {afterWatch.gap_ms !== null && (
        <p role="alert" className="border-error bg-error/10 border-l-4 px-3 py-2">
          Nobody has watched since {clock(afterWatch.gap_ms, timeZone)}. The watch starts anew when somebody is on duty.
        </p>
      )}
      <p>
        Without a break until <strong className="num">{dayAndClock(afterWatch.continuousUntil_ms, timeZone)}</strong>
        {afterWatch.checks.length > 0 && ", then looks at their times, ten minutes before or after at most"}.
      </p>
      {afterWatch.checks.length > 0 && (
        <ol aria-label="Looks" className="border-base-300 divide-base-300 divide-y border-y">
          {afterWatch.checks.map(({ due_ms, done, missed }) => (
            <li key={due_ms} className="flex flex-wrap gap-x-4 py-1.5">
              <span className="num">{clock(due_ms, timeZone)}</span>
              {done ? (
                <span>
                  made at <span className="num">{clock(done.at_ms, timeZone)}</span>: {done.words}
                </span>
              ) : missed ? (
                <strong>missed: one more is added</strong>
              ) : (
                <span>due</span>
              )}
            </li>
          ))}
        </ol>
      )}
      {may("watch check") && afterWatch.checks.some(({ done, missed }) => done === null && !missed) && (
        <ActForm act="permit.watch-check" label="A look" fixed={fixed} button="I have looked" tone="strong" compact>
          <Field label="What you saw" name="words" autoComplete="off" className="w-64" />
        </ActForm>
      )}
      {may("final check") && !afterWatch.finalCheck && (
        <ActForm
          act="permit.final-check"
          label="Final check"
          fixed={fixed}
          pin
          button="Sign the final check"
          tone="strong"
          compact
        >
          <Field label="What you saw" name="words" autoComplete="off" className="w-64" />
        </ActForm>
      )}
      {may("tell control room") && afterWatch.told === null && (
        <ActForm act="permit.tell-control-room" label="Control room told" fixed={fixed} button="Told" compact>
          <Field label="Who in the control room was told" name="who" autoComplete="off" className="w-64" />
        </ActForm>
      )}
      {afterWatch.left.length > 0 ? (
        <p>Left: {afterWatch.left.join("; ")}.</p>
      ) : (
        may("end watch") && (
          <ActForm
            act="permit.end-watch"
            label="End the watch"
            fixed={fixed}
            pin
            button="The watch is over"
            tone="strong"
            compact
          />
        )
      )}
    </section>
  );
}
