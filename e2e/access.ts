import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Least width and height of what is tapped, px; the names beside the strand lie close together and open in full by a tap. */
const TARGET = 48;
const small = (page: Page): Promise<readonly string[]> =>
  page.evaluate((target) => {
    const tapped = '[role=button],[role=link],[role=radio],[role=checkbox],a,button,input,textarea';
    return [...document.querySelectorAll(tapped)]
      .filter((element) => {
        const { width, height } = element.getBoundingClientRect();
        return (
          width > 0 &&
          (width < target - 0.5 || height < target - 0.5) &&
          !element.closest('[data-testid="strand-names"]')
        );
      })
      .map((element) => `${element.getAttribute('aria-label') ?? element.textContent ?? ''}`);
  }, TARGET);

/** No text and nothing that is tapped lies beside the screen, unless what holds it scrolls sideways by itself. */
export async function nothingOff(page: Page): Promise<void> {
  await expect
    .poll(() =>
      page.evaluate(() => {
        const scrolls = (element: Element): boolean => {
          for (let at = element.parentElement; at; at = at.parentElement)
            if (/auto|scroll/.test(getComputedStyle(at).overflowX) && at.scrollWidth > at.clientWidth) return true;
          return false;
        };
        const shown = [
          ...document.querySelectorAll('[role=button],[role=link],a,button,input,textarea,div,span,h1,h2,h3'),
        ];
        return shown
          .filter((element) => [...element.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim()))
          .filter((element) => {
            const { left, right, width, height } = element.getBoundingClientRect();
            return width > 1 && height > 1 && (left < -1 || right > window.innerWidth + 1) && !scrolls(element);
          })
          .map((element) => (element.textContent ?? '').slice(0, 60));
      }),
    )
    .toEqual([]);
}

/**
 * No accessibility fault of any grade by day or night, targets that a finger hits on a phone, nothing off the side.
 *
 * @param shot where a picture of the page in a theme goes, if anywhere
 */
export async function judgeAccess(
  page: Page,
  size: 'phone' | 'wide',
  shot: (colorScheme: 'light' | 'dark') => string | undefined = () => undefined,
): Promise<void> {
  for (const [colorScheme, rules] of [
    ['light', undefined],
    // By night the same page stands in other colours: what goes by colour is judged again.
    ['dark', ['color-contrast', 'link-in-text-block']],
  ] as const) {
    await page.emulateMedia({ colorScheme });
    // Judged when the theme stands: a page read while it is drawn anew shows ink of the one on paper of the other.
    await expect(page.locator('html')).toHaveCSS('color-scheme', colorScheme);
    // What is still drawn anew is judged again; a fault that stays is one.
    await expect(async () => {
      // No frames here: the mode for pages in one piece spares a second page for each judgement. What is in order is not listed,
      // which spares a quarter of the time: each element would be given an address.
      const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
      const { violations } = await (rules ? axe.withRules([...rules]) : axe).analyze();
      expect(violations.map((item) => `${colorScheme}: ${item.id}: ${item.nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
    }).toPass({ timeout: 30_000 });
    const path = shot(colorScheme);
    if (path) await page.screenshot({ path });
  }
  if (size === 'phone') expect(await small(page)).toEqual([]);
  await nothingOff(page);
}

/** What is operated or seen, with no name in the tree that a screen reader goes by. */
const NAMELESS = /^\s*- (button|link|textbox|checkbox|radio|img|switch|combobox|dialog|main|tab)(?=[:\s[]|$)(?! ")/;

/**
 * The page as a screen reader goes through it: one main part with a name, nothing operated without one, and what a step is
 * about in the order in which it is read.
 *
 * @returns the tree, as text
 */
export async function readAloud(page: Page, main: RegExp, inOrder: readonly RegExp[]): Promise<string> {
  let tree = '';
  await expect(async () => {
    tree = await page.locator('body').ariaSnapshot();
    const lines = tree.split('\n');
    expect(lines.filter((line) => NAMELESS.test(line))).toEqual([]);
    const mains = lines.filter((line) => /^\s*- main /.test(line));
    expect(mains).toEqual([expect.stringMatching(main)]);
    let from = 0;
    const missed = inOrder.filter((words) => {
      const at = lines.findIndex((line, i) => i >= from && words.test(line));
      if (at < 0) return true;
      from = at + 1;
      return false;
    });
    expect(missed.map(String)).toEqual([]);
  }).toPass({ timeout: 15_000 });
  return tree;
}

/** Phone and wide screen are judged in full; the narrowest phone, and the wide screen with everything twice as large, for what runs off. */
export const SIZES = [
  ['phone', 390, 844],
  ['wide', 1280, 800],
] as const;
export const NARROW = [
  ['320', 320, 640],
  ['double', 640, 400],
] as const;

export const tap = (name: string | RegExp) => (page: Page) => page.getByRole('button', { name }).first().click();
