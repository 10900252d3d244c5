import { createRequire } from 'node:module';
import type { Visit } from './harness.ts';

const axeFile = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

/** Lets axe be put into the pages of a visit, which their own policy would refuse. */
export async function prepareAxe({ context, page }: Visit): Promise<void> {
  const client = await context.newCDPSession(page);
  await client.send('Page.setBypassCSP', { enabled: true });
}

/** What axe finds against WCAG 2.2, levels A and AA, in all that is drawn now. */
export async function violations({ page }: Visit, besides: readonly string[] = []): Promise<string[]> {
  const isThere = await page.evaluate(() => 'axe' in window);
  if (!isThere) await page.addScriptTag({ path: axeFile });
  return page.evaluate(async (rules) => {
    const { axe } = window as unknown as {
      axe: {
        run(context: object, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
      };
    };
    // What React Aria reads aloud for a moment is named by buttons that may be gone by then.
    const context = { exclude: [['[data-live-announcer]']] };
    const { violations: found } = await axe.run(context, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      rules: Object.fromEntries(rules.map((rule) => [rule, { enabled: false }])),
    });
    return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
  }, besides);
}
