import { ActForm } from "../act/ActForm";
import { RemovalStory } from "./RemovalStory";

type Removal = Readonly<{
  id: string;
  lock: string;
  permit: string;
  story: readonly Readonly<{ did: string; by: string; at_ms: number; words: string }>[];
}>;

/** What somebody whose lock was cut sees before anything else. */
export function UnreadRemoval({ removal, timeZone }: { removal: Removal; timeZone: string }) {
  return (
    <div className="mx-auto max-w-2xl px-4 py-12">
      <h1 className="text-3xl font-semibold">
        Your lock <span className="tag">{removal.lock}</span> was cut
      </h1>
      <p className="mt-3 mb-5 text-lg">
        It hung on permit <span className="tag">{removal.permit}</span> while you were not on site. You are signed off
        there: nothing protects you at that work now. Read how it came about, and ask before you go back to it.
      </p>
      <RemovalStory story={removal.story} timeZone={timeZone} />
      <div className="mt-6">
        <ActForm
          act="removal.read"
          label="I have read it"
          fixed={{ removal: removal.id }}
          pin
          button="I have read it"
          tone="strong"
          compact
        />
      </div>
    </div>
  );
}
