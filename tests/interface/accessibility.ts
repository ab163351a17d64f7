import axe from 'axe-core';
import { expect, type Page } from '@playwright/test';

const guidelines = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice'];

/** Hidden stops of the popover library that hand the focus on at once. */
const focusGuards = '[data-headlessui-focus-guard]';

/**
 * The accessibility faults of a screen that a checker can find, by day and by night. Only what the colours decide is
 * looked at twice: all else is the same elements.
 * @param within behind an open dialog everything is inert and dimmed: there the dialog alone is looked at
 */
export async function faultsOn(page: Page, within = 'body'): Promise<string[]> {
  await putOn(page, 'dark');
  const byNight = await violations(page, within, { type: 'rule', values: ['color-contrast'] });
  await putOn(page, 'light');
  return [...byNight, ...(await violations(page, within, { type: 'tag', values: guidelines }))];
}

async function putOn(page: Page, colorScheme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
  await expect(page.locator('html')).toHaveAttribute('data-theme', colorScheme === 'dark' ? 'night' : 'day');
}

async function violations(page: Page, within: string, runOnly: axe.RunOnly): Promise<string[]> {
  // The checker is as large as the program: it comes once a page, by a way that the page's own rules do not forbid.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const found = await page.evaluate(
    ([include, exclude, only]) =>
      (window as unknown as { axe: typeof axe }).axe.run(
        { include: [include], exclude: [exclude] },
        // Two cards that say the same of the same function are called the same.
        { runOnly: only, rules: { 'landmark-unique': { enabled: false } }, resultTypes: ['violations'] },
      ),
    [within, focusGuards, runOnly] as const,
  );
  return found.violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' ')}`);
}
