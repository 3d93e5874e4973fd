import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { existsSync } from 'node:fs';
import { PATIENCE } from './patience.js';

const CHROMIUM =
  ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(existsSync) ?? '/usr/bin/chromium';

/** Headless Chromium as it runs on a bare machine. */
export const openBrowser = (): Promise<Browser> =>
  puppeteer.launch({
    executablePath: CHROMIUM,
    args: [
      '--no-sandbox',
      '--disable-dev-shm-usage',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--force-device-scale-factor=1',
    ],
  });

export const openPage = async (
  browser: Browser,
  url: string,
  theme: 'light' | 'dark' = 'light',
  width = 1280,
  height = 800,
): Promise<Page> => {
  const page = await browser.newPage();
  await page.setViewport({ width, height });
  await page.evaluateOnNewDocument((t: string) => localStorage.setItem('yunta-theme', t), theme);
  page.setDefaultTimeout(PATIENCE);
  await page.goto(url);
  return page;
};

/** The theme of a page that is open, as another tab would change it. */
export const takeTheme = async (page: Page, theme: 'light' | 'dark'): Promise<void> => {
  await page.evaluate((t: string) => {
    localStorage.setItem('yunta-theme', t);
    window.dispatchEvent(new StorageEvent('storage', { key: 'yunta-theme', newValue: t, storageArea: localStorage }));
  }, theme);
  await page.waitForFunction((t) => document.documentElement.dataset.mantineColorScheme === t, {}, theme);
};
