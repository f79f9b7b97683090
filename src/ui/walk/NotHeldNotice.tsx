import { notHeldClause } from "@/core/words/en/notHeld";
import type { NotHeld } from "@/core/refusal/notHeld";

/** Nobody may count on this isolation: said wherever people look before they put their hands in. */
export function NotHeldNotice({ why }: { why: NotHeld | null }) {
  if (why === null || why.code === "not proven") return null;
  const clause = notHeldClause(why);
  return (
    <p role="alert" className="border-error bg-error/10 mb-4 max-w-prose border-l-4 px-4 py-2">
      <strong>{why.code !== "not judged" ? "Stop, everybody off:" : "Nobody starts:"}</strong> {clause}.
    </p>
  );
}
