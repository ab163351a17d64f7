import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * The accessibility faults of a page that a checker can find.
 * @param within behind an open dialog everything is inert and dimmed: there the dialog alone is looked at
 */
export async function faultsOn(page: Page, within = 'body'): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .include(within)
    // Hidden stops of the popover library that hand the focus on at once.
    .exclude('[data-headlessui-focus-guard]')
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'])
    .analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' ')}`);
}
