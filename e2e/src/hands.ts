import type { KeyInput, Page } from 'puppeteer-core';
import { PATIENCE } from './patience.js';

/** What a person does with a page, each counted as one action: a click, a key, a text typed or pasted in one go. */
export class Hands {
  actions = 0;

  constructor(readonly page: Page) {}

  /** Finds by role and name as a screen reader says it. */
  private find(role: string, name: string | RegExp) {
    const pattern = typeof name === 'string' ? `[name="${name}"]` : '';
    return this.page.waitForSelector(`::-p-aria(${pattern}[role="${role}"])`);
  }

  async click(role: string, name: string): Promise<void> {
    this.actions += 1;
    const found = await this.find(role, name);
    if (!found) throw new Error(`there is no ${role} "${name}"`);
    await found.click();
  }

  async type(role: string, name: string, text: string): Promise<void> {
    this.actions += 1;
    const found = await this.find(role, name);
    if (!found) throw new Error(`there is no ${role} "${name}"`);
    await found.click({ count: 3 });
    await this.page.keyboard.sendCharacter(text);
  }

  /** One of several choices side by side, found by what it says; the page may still be moving. */
  async pick(text: string): Promise<void> {
    this.actions += 1;
    const found = await this.page.waitForSelector(`::-p-text(${text})`);
    await found!.evaluate((e) => (e as HTMLElement).click());
  }

  async press(key: KeyInput): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.press(key);
  }

  /** A text typed where the focus is. */
  async write(text: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.type(text);
  }

  /** Waits until the page says it. */
  async sees(text: string, timeout = PATIENCE): Promise<void> {
    await this.page.waitForFunction((t: string) => document.body.innerText.replaceAll(/\s+/g, ' ').includes(t), { timeout, polling: 50 }, text).catch(async () => {
      throw new Error(`the page never said "${text}". It says: ${(await this.text()).slice(0, 1500)}`);
    });
  }

  text(): Promise<string> {
    return this.page.evaluate(() => document.body.innerText.replaceAll(/\s+/g, ' '));
  }
}
