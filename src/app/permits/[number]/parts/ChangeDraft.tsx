import { peopleToChoose } from "@/server/job/jobView";
import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { kindRule } from "@/core/permit/kinds/kinds";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { PermitDraftForm } from "@/ui/job/PermitDraftForm";
import { detailsAsFields } from "@/ui/permit/detailFields";

type Props = Readonly<{ permit: PermitView; person: Person }>;

/** A draft is put right where it stands, under its number. */
export function ChangeDraft({ permit, person }: Props) {
  if (!mayDo(permit, person, "change")) return null;
  const timeZone = siteTimeZone();
  const choices = peopleToChoose();
  return (
    <details open={permit.sentBack !== null}>
      <summary className="link w-fit cursor-pointer">Change the draft</summary>
      <p className="mt-3 mb-4">What was looked at for it before is looked at again.</p>
      <PermitDraftForm
        key={`${permit.number} ${person.units} ${permit.life.log.length}`}
        job={permit.job.number}
        kind={permit.kind}
        longest_h={kindRule(permit.kind).longest_h}
        words={permit.words}
        hazards={permit.hazards}
        precautions={permit.precautions}
        holder={permit.holderId}
        leads={choices.filter(({ roles }) => roles.includes("holder"))}
        people={choices.map(({ id, name }) => ({ id, name }))}
        defaults={detailsAsFields(permit.details, timeZone)}
        units={person.units}
        from_ms={permit.validFrom_ms}
        to_ms={permit.validTo_ms}
        timeZone={timeZone}
        change={{ permit: permit.number }}
      />
    </details>
  );
}
