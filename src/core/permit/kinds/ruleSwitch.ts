/** Rules by name, and for tests a way to look at what would be found with one of them taken out. */
export type RuleSwitch<Rule extends string> = Readonly<{
  keeps: (rule: Rule) => boolean;
  /** For tests only: nobody turns a rule off on a site. */
  without: <T>(rule: Rule, look: () => T) => T;
}>;

export function ruleSwitch<Rule extends string>(): RuleSwitch<Rule> {
  const off = new Set<Rule>();
  return {
    keeps: (rule) => !off.has(rule),
    without: (rule, look) => {
      off.add(rule);
      try {
        return look();
      } finally {
        off.delete(rule);
      }
    },
  };
}
