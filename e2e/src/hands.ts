import type { KeyInput, Page } from 'puppeteer-core';
import { PATIENCE } from './patience.js';

/** What a person does with a page, each counted as one action: a click, a key, a text typed or pasted in one go. */
export class Hands {
  actions = 0;

  constructor(readonly page: Page) {}

  /**
   * Finds by role and name as a screen reader says it, and waits until it can be used and stands still: what arrives
   * later moves what stands below.
   */
  private find(role: string, name: string) {
    return this.page.locator(`::-p-aria([name="${name}"][role="${role}"])`).setTimeout(PATIENCE);
  }

  async click(role: string, name: string): Promise<void> {
    this.actions += 1;
    await this.find(role, name)
      .click()
      .catch((e: unknown) => this.lost(`${role} "${name}" could not be clicked`, e));
  }

  /** Clicks a field and types over what stands in it. */
  async type(role: string, name: string, text: string): Promise<void> {
    this.actions += 1;
    const field = this.find(role, name);
    await field.click().catch((e: unknown) => this.lost(`${role} "${name}" could not be clicked`, e));
    const found = await field.waitHandle();
    await found.evaluate((e) => {
      (e as HTMLInputElement).focus();
      (e as HTMLInputElement).select();
    });
    await this.page.keyboard.sendCharacter(text);
  }

  /** One of several choices side by side, found by what it says; the page may still be moving. */
  async pick(text: string): Promise<void> {
    this.actions += 1;
    const found = await this.page
      .waitForSelector(`::-p-text(${text})`)
      .catch((e: unknown) => this.lost(`"${text}" could not be picked`, e));
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

  /** A text typed into a field and taken by Enter. */
  async enter(field: string, text: string): Promise<void> {
    await this.type('textbox', field, text);
    await this.press('Enter');
  }

  /** Another room of the rig that is open, or a view of one. */
  async room(name: string, show?: string): Promise<void> {
    const rig = /^.*\/rig\/[^/]+/.exec(this.page.url())?.[0] ?? '';
    await this.page.goto(`${rig}/${name}${show ? `?show=${show}` : ''}`);
  }

  /**
   * Goes to an address of the program until it says something; within the page where it says that only there, as going
   * forward in a browser does, else the page is loaded anew.
   */
  async goes(to: string, says: string): Promise<void> {
    const isSaidOnlyThere = !(await this.text()).replaceAll(/\s+/g, ' ').includes(says);
    if (isSaidOnlyThere && new URL(to).origin === new URL(this.page.url()).origin)
      await this.page.evaluate((url: string) => {
        history.pushState({}, '', url);
        window.dispatchEvent(new PopStateEvent('popstate', { state: {} }));
      }, to);
    else await this.page.goto(to);
    await this.sees(says);
  }

  /** Pastes rows into the cell that has the focus, as a spreadsheet gives them. */
  async pasteCells(rows: readonly (readonly string[])[]): Promise<void> {
    this.actions += 1;
    await this.page.evaluate(
      (text) => {
        const data = new DataTransfer();
        data.setData('text/plain', text);
        document.activeElement!.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
        );
      },
      rows.map((r) => r.join('\t')).join('\n'),
    );
  }

  /** Waits until the page says it. */
  async sees(text: string, timeout = PATIENCE): Promise<void> {
    await this.page
      .waitForFunction(
        (t: string) => document.body.innerText.replaceAll(/\s+/g, ' ').includes(t),
        { timeout, polling: 50 },
        text,
      )
      .catch((e: unknown) => this.lost(`the page never said "${text}"`, e));
  }

  private async lost(what: string, cause: unknown): Promise<never> {
    throw new Error(`${what}. The page says: ${(await this.text()).slice(0, 1500)}`, { cause });
  }

  text(): Promise<string> {
    return this.page.evaluate(() => document.body.innerText.replaceAll(/\s+/g, ' '));
  }
}
