"use client";

import { ActForm } from "../act/ActForm";
import { OfferedNumbers } from "../act/OfferedNumbers";

type Props = Readonly<{
  box: string;
  closed: boolean;
  standing: readonly Readonly<{ role: string; lock: string; person: string; personId: string }>[];
  person: Readonly<{ id: string; isCoordinator: boolean }>;
  people: readonly Readonly<{ id: string; name: string }>[];
  /** This person's locks that hang nowhere. */
  own: readonly string[];
}>;

/** The lock that is first on and last off. A second one may hang beside it, so that it never has to come off alone. */
export function StandingLocks({ box, closed, standing, person, people, own }: Props) {
  if (!person.isCoordinator) {
    return standing.length === 0 ? <p>A coordinator hangs the first lock, before anybody signs on.</p> : null;
  }
  const mayTake = standing.filter((lock) => lock.role === "department" || lock.personId === person.id);
  return (
    <div className="space-y-6">
      {closed && (
        <div>
          <h3 className="mb-2 font-semibold">
            {standing.length === 0 ? "Hang the first lock" : "Hang a lock beside it, to hand over"}
          </h3>
          <ActForm
            act="box.hang"
            label="Hang my lock on the box"
            fixed={{ box, role: "coordinator" }}
            pin
            compact
            button="My lock is on"
            tone={standing.length === 0 ? "strong" : "plain"}
          >
            <LockField label="My lock number" />
            <OfferedNumbers name="lock" numbers={own} />
          </ActForm>
          <details className="mt-3">
            <summary className="min-h-11 cursor-pointer content-center">The department&apos;s lock, over night</summary>
            <div className="mt-2">
              <ActForm
                act="box.hang"
                label="Hang the department's lock on the box"
                fixed={{ box, role: "department" }}
                pin
                compact
                button="The department's lock is on"
              >
                <LockField label="Its number" />
                <label className="flex flex-col gap-1 text-sm">
                  <span>Name on it</span>
                  <select name="person" className="select w-52" defaultValue={person.id}>
                    {people.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </select>
                </label>
              </ActForm>
            </div>
          </details>
        </div>
      )}
      {mayTake.length > 0 && <h3 className="mb-2 font-semibold">Take a lock off, when nobody needs it any more</h3>}
      {mayTake.map((lock) => (
        <ActForm
          key={lock.lock}
          act="box.take-off"
          label={`Take ${lock.lock} off the box`}
          fixed={{ box, lock: lock.lock }}
          pin
          compact
          button={`Lock ${lock.lock} is off`}
        />
      ))}
    </div>
  );
}

function LockField({ label }: { label: string }) {
  return (
    <label className="flex flex-col gap-1 text-sm">
      <span>{label}</span>
      <input name="lock" autoComplete="off" className="input tag w-32" />
    </label>
  );
}
