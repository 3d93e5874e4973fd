import { readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';

/** Reference: axe-core, the accessibility checker. */
const source = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** What it finds serious or critical on a page, in words. */
export const violations = async (page: Page): Promise<readonly string[]> => {
  await page.evaluate(source);
  const found = await page.evaluate(
    async () =>
      (
        await (
          window as unknown as {
            axe: {
              run: (options: { resultTypes: readonly string[] }) => Promise<{
                violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
              }>;
            };
          }
        ).axe.run({ resultTypes: ['violations'] })
      ).violations,
  );
  return found
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 200)} ${v.nodes[0]?.failureSummary.slice(0, 200)}`);
};
