import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

// WCAG 2.2, level AA; only what breaks it is wanted, which is also the quickest to get.
const RULES = {
  resultTypes: ["violations" as const],
  runOnly: { type: "tag" as const, values: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] },
};

/** What axe finds on the page that is serious or critical. */
export async function seriousProblems(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).setLegacyMode(true).options(RULES).analyze();
  const serious = violations.filter(({ impact }) => impact === "serious" || impact === "critical");
  return serious.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`);
}
