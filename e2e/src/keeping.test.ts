import type { Browser, HTTPRequest, Page } from 'puppeteer-core';
import { violations } from './axe.js';
import { openBrowser, openPage } from './browser.js';
import { Hands } from './hands.js';
import { TestServer } from './server.js';

let server: TestServer;
let browser: Browser;
beforeAll(async () => {
  [server, browser] = await Promise.all([TestServer.start('keeping'), openBrowser()]);
}, 120_000);
afterAll(async () => {
  await browser.close();
  await server.stop();
});

interface Answer {
  readonly status: number;
  readonly body: object;
}
const FAULT: Answer = { status: 500, body: { title: 'A fault in Yunta', detail: 'Nothing was changed.' } };
const FULL: Answer = {
  status: 503,
  body: {
    title: 'The disk is full',
    detail: 'Free some space where /home/player/yunta lies; what waits is then saved by itself.',
  },
};

/** Between the page and the server: what is sent as a change gets this answer, as long as there is one. */
class Between {
  answer: Answer | undefined;

  static async of(page: Page): Promise<Between> {
    const between = new Between();
    await page.setRequestInterception(true);
    page.on('request', (request: HTTPRequest) => {
      const { answer } = between;
      if (answer && request.method() === 'POST' && request.url().endsWith('/changes'))
        void request.respond({
          status: answer.status,
          contentType: 'application/problem+json',
          body: JSON.stringify(answer.body),
        });
      else void request.continue();
    });
    return between;
  }
}

const sheet = async (before?: (page: Page) => Promise<unknown>): Promise<Hands> => {
  const page = await openPage(browser, `${server.url}/`);
  await before?.(page);
  await page.goto(`${server.url}/rig/island-run/sounds`);
  await page.waitForSelector('[data-at="0,-1"]');
  return new Hands(page);
};
const turn = async (hands: Hands, place: string): Promise<void> => {
  await hands.page.click(`[data-at="${place}"]`);
  await hands.press(' ' as never);
};
const rename = async (hands: Hands, row: number, name: string): Promise<void> => {
  await hands.page.click(`[data-at="${row},-1"]`);
  await hands.press('F2');
  await hands.page.waitForSelector(`[data-at="${row},-1"] input`);
  await hands.page.$eval(`[data-at="${row},-1"] input`, (e) => (e as HTMLInputElement).select());
  await hands.page.keyboard.sendCharacter(name);
  await hands.press('Enter');
};
const nameOnServer = async (row: number): Promise<string> => {
  const { parts } = (await (await fetch(`${server.url}/api/rigs/island-run`)).json()) as {
    parts: { kind: string; at: number; name: string }[];
  };
  return parts.filter((p) => p.kind === 'sound').sort((a, b) => a.at - b.at)[row]!.name;
};
const eventually = async (is: () => Promise<boolean>): Promise<void> => {
  for (let i = 0; i < 600 && !(await is()); i += 1) await new Promise((r) => setTimeout(r, 100));
  expect(await is()).toBe(true);
};

describe('a change that cannot be kept', () => {
  test('is set aside with what was meant; the next is saved; it is kept as a note that can be read and removed', async () => {
    const hands = await sheet();
    const between = await Between.of(hands.page);
    between.answer = FAULT;
    await rename(hands, 0, 'Opening');
    await hands.sees('One change could not be kept');
    between.answer = undefined;
    await hands.sees('Verse clean: name Verse clean Opening');
    expect(await violations(hands.page)).toEqual([]);
    await hands.click('button', 'Keep it as a note');
    await hands.sees('saved');
    await rename(hands, 1, 'Crunchier');
    await eventually(async () => (await nameOnServer(1)) === 'Crunchier');
    expect(await nameOnServer(0)).toBe('Verse clean');
    await hands.pick('revision');
    await hands.pick('1 note');
    await hands.sees('Could not be kept.');
    await hands.sees('Verse clean: name: Opening (was: Verse clean)');
    await hands.click('button', 'Remove');
    await hands.page.waitForFunction(() => !document.querySelector('.notes'));
    await hands.page.close();
  });

  test('one that was refused for a text is mended in its field', async () => {
    const hands = await sheet();
    const between = await Between.of(hands.page);
    between.answer = {
      status: 422,
      body: {
        title: 'Refused',
        detail: 'x',
        refusals: [
          {
            code: 'shape',
            part: 'sound:03',
            where: 'put[0].name',
            wrong: 'The name is too long.',
            would: 'Shorten it.',
          },
        ],
      },
    };
    await rename(hands, 2, 'Far too wide a chorus');
    await hands.sees('The name is too long.');
    between.answer = undefined;
    await hands.type('textbox', 'Type the name otherwise, and the change can be kept', 'Wide');
    await hands.click('button', 'Keep it so');
    await eventually(async () => (await nameOnServer(2)) === 'Wide');
    await hands.page.close();
  });

  test('Undo lets it go', async () => {
    const hands = await sheet();
    const between = await Between.of(hands.page);
    between.answer = FAULT;
    await turn(hands, '3,4');
    await hands.sees('One change could not be kept');
    await hands.page.keyboard.down('Control');
    await hands.press('z');
    await hands.page.keyboard.up('Control');
    await hands.page.waitForFunction(() => !document.body.innerText.includes('One change could not be kept'));
    await hands.page.close();
  });
});

describe('a text that is too long', () => {
  test('says so beside its field and stays there, in a cell and in a form', async () => {
    const hands = await sheet();
    await rename(hands, 4, 'y'.repeat(130));
    await hands.sees('has 130 characters, over the limit of 120');
    expect(await hands.page.evaluate(() => (document.activeElement as HTMLInputElement).value.length)).toBe(130);
    expect(await violations(hands.page)).toEqual([]);
    await hands.press('Escape');
    await hands.type('textbox', 'Name of a new sound', 'n'.repeat(125));
    await hands.sees('125 characters; at most 120 are kept.');
    expect(
      await hands.page.$eval(
        '::-p-aria([name="Add a sound"][role="button"])',
        (e) => (e as HTMLButtonElement).disabled,
      ),
    ).toBe(true);
    await hands.type('textbox', 'Name of a new sound', 'half \ud83d');
    await hands.page.close();
  });
});

describe('a browser that cannot keep', () => {
  const withoutStore = (page: Page) =>
    page.evaluateOnNewDocument(() => {
      Object.defineProperty(window, 'indexedDB', {
        get: () => ({
          open: () => {
            throw new DOMException('no', 'SecurityError');
          },
        }),
      });
    });
  test('says so, asks before it is left with something unsent, and is quiet when all is sent', async () => {
    const hands = await sheet(withoutStore);
    await hands.sees('This browser cannot keep changes.');
    const between = await Between.of(hands.page);
    between.answer = FULL;
    await turn(hands, '5,4');
    await hands.sees('Stay on this page until they are sent.');
    expect(await violations(hands.page)).toEqual([]);
    const asked = new Promise<string>((said) =>
      hands.page.once('dialog', (dialog) => {
        said(dialog.type());
        void dialog.dismiss();
      }),
    );
    await hands.page.close({ runBeforeUnload: true });
    expect(await asked).toBe('beforeunload');
    between.answer = undefined;
    await hands.sees('saved');
    await hands.page.close();
  });
});

describe('what waits', () => {
  test('a full disk is told in words; the change waits, is told on the list of rigs, and is sent from there', async () => {
    const hands = await sheet();
    const between = await Between.of(hands.page);
    between.answer = FULL;
    await rename(hands, 6, 'Waited for room');
    await hands.sees('The disk is full. Free some space where /home/player/yunta lies');
    await hands.sees('1 change waits');
    await hands.page.goto('about:blank');
    const list = new Hands(await openPage(browser, 'about:blank'));
    const door = await Between.of(list.page);
    door.answer = FULL;
    await list.page.goto(`${server.url}/`);
    await list.sees('1 change waits here, sent as soon as the server can keep it.');
    expect(await violations(list.page)).toEqual([]);
    door.answer = undefined;
    await eventually(async () => (await nameOnServer(6)) === 'Waited for room');
    await list.page.waitForFunction(() => !document.body.innerText.includes('waits here'));
    await Promise.all([list.page.close(), hands.page.close()]);
  });

  test('a rig whose making was not answered is made once, however often one asks', async () => {
    const page = await openPage(browser, `${server.url}/`);
    const hands = new Hands(page);
    await hands.sees('A new rig');
    let lost = 2;
    await page.setRequestInterception(true);
    page.on('request', (request) => {
      if (request.method() !== 'POST' || !request.url().endsWith('/api/rigs') || lost <= 0)
        return void request.continue();
      lost -= 1;
      // It arrives, and only the answer is lost.
      void fetch(request.url(), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: request.postData()!,
      }).then(() => request.abort());
    });
    await hands.type('textbox', 'Name', 'Only one');
    for (let i = 0; i < 2; i += 1) {
      await hands.click('button', 'Begin');
      await hands.sees('it is done once');
    }
    await hands.click('button', 'Begin');
    await page.waitForFunction(() => location.pathname.startsWith('/rig/only-one-'));
    const rigs = (await (await fetch(`${server.url}/api/rigs`)).json()) as { name: string }[];
    expect(rigs.filter((r) => r.name === 'Only one')).toHaveLength(1);
    await page.close();
  });
});
