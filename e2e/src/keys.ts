import type { KeyInput, Page } from 'puppeteer-core';
import { PATIENCE } from './patience.js';

export const keys = async (page: Page, ...list: readonly KeyInput[]): Promise<void> => {
  for (const key of list) await page.keyboard.press(key);
};

/** What the name of a thing on the page is held against, in the page: its label, words, placeholder and id. */
const CALLED = `(e) => (e.getAttribute('aria-label') ?? '') + ' ' + (e.innerText ?? '') + ' ' + (e.placeholder ?? '') + ' ' + e.id`;

/**
 * Presses Tab until what has the focus is called so; the page as a whole, which has it between the last and the first,
 * does not count. Waits first until the page has such a thing that can take the focus.
 */
export const tabTo = async (page: Page, name: RegExp, most = 80): Promise<void> => {
  const could = 'a[href], button, input, textarea, select, [tabindex]';
  await page.waitForFunction(
    `[...document.querySelectorAll('${could}')].some((e) => !e.disabled && ${String(name)}.test((${CALLED})(e)))`,
    { timeout: PATIENCE, polling: 50 },
  );
  for (let i = 0; i < most; i += 1) {
    await page.keyboard.press('Tab');
    const at = (await page.evaluate(
      `document.activeElement === document.body ? '' : (${CALLED})(document.activeElement)`,
    )) as string;
    if (name.test(at)) return;
  }
  throw new Error(`Tab never reached ${String(name)}`);
};

/**
 * Takes what a field offers for the text that was typed into it, with the arrow: each key waits for what the one before
 * it brought.
 */
export const takeChoice = async (page: Page, typed: string): Promise<void> => {
  const shown = `[...document.querySelectorAll('[role="option"]')].filter((e) => e.getClientRects().length > 0)`;
  const fits = `(e) => ${JSON.stringify(typed.toLowerCase().split(' '))}.every((w) => e.innerText.toLowerCase().includes(w))`;
  const waits = { timeout: PATIENCE, polling: 50 };
  await page.waitForFunction(`${shown}.length > 0 && (${fits})(${shown}[0])`, waits);
  await page.keyboard.press('ArrowDown');
  await page.waitForFunction(`${shown}.some((e) => e.hasAttribute('data-combobox-selected') && (${fits})(e))`, waits);
  await page.keyboard.press('Enter');
};

/** Waits until a field has the focus, by its label. */
const hasFocus = (page: Page, label: string) =>
  page.waitForFunction(
    (l: string) => document.activeElement?.getAttribute('aria-label') === l,
    { timeout: PATIENCE, polling: 50 },
    label,
  );

/** Ctrl K, and waits until one can type into it. */
export const openFind = async (page: Page): Promise<void> => {
  await page.keyboard.down('Control');
  await page.keyboard.press('k');
  await page.keyboard.up('Control');
  await hasFocus(page, 'Find anything');
};

/** Ctrl K, a few letters, and the first that is found. */
export const findAnything = async (page: Page, typed: string): Promise<void> => {
  await openFind(page);
  await page.keyboard.type(typed);
  await page.waitForFunction(
    (t: string) =>
      [...document.querySelectorAll('.mantine-Spotlight-action')][0]?.textContent.toLowerCase().includes(t),
    { timeout: PATIENCE, polling: 50 },
    typed.toLowerCase(),
  );
  await page.keyboard.press('Enter');
  await page.waitForSelector('input[aria-label="Find anything"]', { hidden: true, timeout: PATIENCE });
};
