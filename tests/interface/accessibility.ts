import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const guidelines = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'];

/**
 * The accessibility faults of a screen that a checker can find, by day and by night. Only what the colours decide is
 * looked at twice: all else is the same elements.
 * @param within behind an open dialog everything is inert and dimmed: there the dialog alone is looked at
 */
export async function faultsOn(page: Page, within = 'body'): Promise<string[]> {
  const checker = (): AxeBuilder =>
    new AxeBuilder({ page })
      .include(within)
      // Hidden stops of the popover library that hand the focus on at once.
      .exclude('[data-headlessui-focus-guard]')
      // There are no frames within frames, for which a second page would be opened at each check.
      .setLegacyMode();
  await putOn(page, 'dark');
  const byNight = await checker().withRules('color-contrast').analyze();
  await putOn(page, 'light');
  const byDay = await checker()
    .options({ resultTypes: ['violations'] })
    .withTags(guidelines)
    .analyze();
  return [byNight, byDay]
    .flatMap(({ violations }) => violations)
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' ')}`);
}

async function putOn(page: Page, colorScheme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
  await expect(page.locator('html')).toHaveAttribute('data-theme', colorScheme === 'dark' ? 'night' : 'day');
}
