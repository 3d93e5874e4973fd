import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import type { Hands } from './hands.js';

/** A folder of its own for what a page saves. */
export const downloads = async (hands: Hands): Promise<string> => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-files-'));
  const session = await hands.page.createCDPSession();
  await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  return folder;
};

/** The text of the file that a page saved into a folder, once it is whole. @param end how its name and its text end */
export const savedText = async (folder: string, end: readonly [name: string, text: string]): Promise<string> => {
  for (;;) {
    const [name] = readdirSync(folder).filter((n) => n.endsWith(end[0]));
    const text = name ? readFileSync(join(folder, name), 'utf8') : '';
    if (text.endsWith(end[1])) return text;
    await new Promise((soon) => setTimeout(soon, 50));
  }
};

/** The rig file that a page saved into a folder, once it is whole. */
export const savedRig = (folder: string): Promise<string> => savedText(folder, ['.yunta.json', '}\n']);

/** Gives a file to the field that the page has for one. */
export const chooseFile = async (hands: Hands, file: string): Promise<void> => {
  hands.actions += 1;
  const field = await hands.page.waitForSelector('input[type=file]');
  await (field as ElementHandle<HTMLInputElement>).uploadFile(file);
};
