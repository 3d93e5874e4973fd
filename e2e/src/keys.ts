import type { KeyInput, Page } from 'puppeteer-core';

export const keys = async (page: Page, ...list: readonly KeyInput[]): Promise<void> => {
  for (const key of list) await page.keyboard.press(key);
};

/** Presses Tab until what has the focus is called so; the page as a whole, which has it between the last and the first, does not count. */
export const tabTo = async (page: Page, name: RegExp, most = 80): Promise<void> => {
  for (let i = 0; i < most; i += 1) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => { const e = document.activeElement as HTMLElement; if (e === document.body) return ''; return `${e.getAttribute('aria-label') ?? ''} ${e.innerText ?? ''} ${(e as HTMLInputElement).placeholder ?? ''} ${e.id}`; });
    if (name.test(at)) return;
  }
  throw new Error(`Tab never reached ${String(name)}`);
};
