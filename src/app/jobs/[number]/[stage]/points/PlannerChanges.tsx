import type { JobView } from "@/server/job/jobView";
import { ActForm } from "@/ui/act/ActForm";

/** Devices that a planner pins in, strikes out or keeps passing; the plans above follow at once. */
export function PlannerChanges({ view }: { view: JobView }) {
  const { pinned, struck, mustPass } = view.job;
  const changes = [
    ...pinned.map((tag) => ["included", tag] as const),
    ...struck.map((tag) => ["excluded", tag] as const),
    ...mustPass.map((tag) => ["kept passing", tag] as const),
  ];
  return (
    <section aria-label="Change the plan">
      <p className="mb-3 max-w-prose">
        Include a device that you want locked whatever is cheapest; exclude one that cannot be reached or that you do
        not want. To swap, exclude one and include the other. Keep one passing where the work needs what comes through
        it: a purge, cooling, ventilation, a supply. No other job may then stop it.
      </p>
      {changes.length > 0 && (
        <ul className="mb-4 max-w-3xl">
          {changes.map(([how, tag]) => (
            <li key={tag} className="border-base-300 flex flex-wrap items-end gap-4 border-b py-2">
              <span className="w-40">
                <span className="tag font-semibold">{tag}</span> {how}
              </span>
              <ActForm
                act="plan.adjust"
                label={`Leave ${tag} to the engine`}
                fixed={{ job: view.number, device: tag, to: "left to the engine", reason: "taken back" }}
                compact
                button="Take back"
              />
            </li>
          ))}
        </ul>
      )}
      <ActForm
        act="plan.adjust"
        label="Include, exclude or keep a device passing"
        fixed={{ job: view.number }}
        compact
        button="Change"
      >
        <label className="flex flex-col gap-1 text-sm">
          Device
          <input name="device" className="input tag w-36" maxLength={80} autoComplete="off" />
        </label>
        <label className="flex flex-col gap-1 text-sm">
          To be
          <select name="to" className="select w-40" defaultValue="">
            <option value="">choose</option>
            <option value="pinned">included</option>
            <option value="struck">excluded</option>
            <option value="passing">kept passing</option>
          </select>
        </label>
        <label className="flex flex-col gap-1 text-sm">
          Reason
          <input name="reason" className="input w-72 max-w-full" maxLength={500} />
        </label>
      </ActForm>
    </section>
  );
}
