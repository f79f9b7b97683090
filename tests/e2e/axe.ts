import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect } from "./site";

export async function expectNoAxeViolation(page: Page, where: string, rules?: string[]): Promise<void> {
  // While a page is looked at again its title comes with what is sent last; one that never comes fails here.
  await page.waitForFunction(() => document.title !== "");
  const axe = new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  expect(
    violations.map(({ id, nodes }) => `${where}: ${id} at ${nodes.map((node) => node.target.join(" ")).join("; ")}`),
  ).toEqual([]);
}
