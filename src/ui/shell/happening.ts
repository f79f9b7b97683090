/** What the server says on the line of live updates; see the server's events. */
export type Happening =
  /** The line stands; `told` marks what had been told before it, and is null from a server that says no mark. */
  | Readonly<{ kind: "open"; told: string | null }>
  | Readonly<{ kind: "alarm"; subject: string }>
  | Readonly<{
      kind: "act" | "permit" | "instrument";
      subject: string;
      about: readonly string[];
      page: string | null;
    }>;

/** Null for what is none: a page of another version reads on, and looks when it next hears something that it knows. */
export function readHappening(data: string): Happening | null {
  let said: unknown;
  try {
    said = JSON.parse(data);
  } catch {
    return null;
  }
  if (typeof said !== "object" || said === null || !("kind" in said)) return null;
  if (said.kind === "open") {
    return { kind: "open", told: "told" in said && typeof said.told === "string" ? said.told : null };
  }
  if (!("subject" in said) || typeof said.subject !== "string") return null;
  const { kind, subject } = said;
  if (kind === "alarm") return { kind, subject };
  if (kind !== "act" && kind !== "permit" && kind !== "instrument") return null;
  const about = "about" in said && Array.isArray(said.about) ? said.about.filter((one) => typeof one === "string") : [];
  const page = "page" in said && typeof said.page === "string" ? said.page : null;
  return { kind, subject, about, page };
}
