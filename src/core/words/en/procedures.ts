/** Why nobody requests work by a procedure, as a clause. The codes are those of core/library. */
const UNUSABLE = {
  "not approved": "it is not approved by two people yet",
  superseded: "a newer version took its place",
  withdrawn: "it was withdrawn",
  "inspection overdue": "its yearly inspection is overdue",
  "found unsound": "its last inspection found that it is not right",
} as const;

export function unusableWords(why: keyof typeof UNUSABLE): string {
  return UNUSABLE[why];
}
