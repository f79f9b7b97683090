import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { RemovalStory } from "./RemovalStory";

type Removal = Readonly<{
  id: string;
  lock: string;
  owner: string;
  ownerId: string;
  state: string;
  next: string;
  story: readonly Readonly<{ did: string; by: string; at_ms: number; words: string }>[];
}>;
type Props = Readonly<{
  permit: string;
  removals: readonly Removal[];
  /** Who is signed on now, with their locks. */
  on: readonly Readonly<{ personId: string; name: string; lock: string }>[];
  person: Readonly<{ id: string; roles: readonly string[] }>;
  timeZone: string;
}>;

/** Locks that were left on, and taking them off without their owners. The server decides again on every step. */
export function Removals({ permit, removals, on, person, timeZone }: Props) {
  const may = (...roles: string[]) => roles.some((role) => person.roles.includes(role));
  const others = on.filter(
    ({ personId }) =>
      personId !== person.id &&
      !removals.some((removal) => removal.ownerId === personId && !["cut", "told"].includes(removal.state)),
  );
  return (
    <>
      {removals.map((removal) => (
        <section
          key={removal.id}
          aria-label={`Removal of lock ${removal.lock}`}
          className="border-error border-t-2 pt-3"
        >
          <h2 className="text-lg font-semibold">
            Lock <span className="tag">{removal.lock}</span> left on by {removal.owner}: {removal.state}
          </h2>
          <p className="mb-3">{removal.next}</p>
          <RemovalStory story={removal.story} timeZone={timeZone} />
          {removal.ownerId !== person.id && (
            <div className="mt-3 space-y-4">
              <NextStep removal={removal} may={may} />
              {["opened", "missing", "authorised"].includes(removal.state) && (
                <details>
                  <summary className="cursor-pointer">They came back, or were found</summary>
                  <div className="mt-2">
                    <Step act="removal.call-off" removal={removal} button="Call it off" words="What happened" />
                  </div>
                </details>
              )}
            </div>
          )}
        </section>
      ))}
      {others.length > 0 && may("coordinator", "issuer", "holder") && (
        <details className="border-base-300 border-t pt-3">
          <summary className="cursor-pointer">Somebody left their lock on</summary>
          <p className="mt-2 mb-3 max-w-prose">
            Only when they are not on site. The place is searched, they are tried to be reached, a manager authorises
            it, and they are told before they do anything else.
          </p>
          <ActForm
            act="removal.open"
            label="A lock was left on"
            fixed={{ permit }}
            pin
            button="Ask for its removal"
            compact
          >
            <label className="flex flex-col gap-1 text-sm">
              <span>Whose lock</span>
              <select name="owner" className="select w-60" defaultValue="">
                <option value="" disabled>
                  Choose
                </option>
                {others.map((one) => (
                  <option key={one.personId} value={one.personId}>
                    {one.name}, lock {one.lock}
                  </option>
                ))}
              </select>
            </label>
            <Field label="Why" name="reason" maxLength={500} className="min-w-60" />
          </ActForm>
        </details>
      )}
    </>
  );
}

function NextStep({ removal, may }: { removal: Removal; may: (...roles: string[]) => boolean }) {
  const attempted = removal.story.filter((one) => one.did === "tried to reach them").length;
  switch (removal.state) {
    case "opened":
      return (
        <Step
          act="removal.looked-for"
          removal={removal}
          button="Searched: not on site"
          words="Where you searched, how you know"
        />
      );
    case "missing":
      return (
        <>
          <Step act="removal.tried" removal={removal} button="Tried to reach them" words="How, and what came of it" />
          {attempted >= 2 && may("approver") && (
            <Step act="removal.authorise" removal={removal} button="Authorise" words="Why it may be cut" />
          )}
        </>
      );
    case "authorised":
      return may("coordinator", "issuer", "isolator") ? (
        <Step
          act="removal.cut"
          removal={removal}
          button="Cut, the lock is off"
          words="What you saw when you searched again"
        />
      ) : null;
    case "cut":
    case "told":
    case "called off":
      return null;
  }
}

function Step({ act, removal, button, words }: { act: string; removal: Removal; button: string; words: string }) {
  return (
    <ActForm act={act} label={`${button}: ${removal.lock}`} fixed={{ removal: removal.id }} pin button={button} compact>
      <Field label={words} name="words" maxLength={500} className="min-w-72" />
    </ActForm>
  );
}
