import { resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '../..');
export const home = resolve(process.env.YUNTA_HOME ?? `${root}/.yunta`);

export const say = (text) => process.stderr.write(`${text}\n`);

export const fail = (text, code = 1) => {
  say(text);
  process.exit(code);
};

/** Runs a task; says what is going on when it takes longer than two seconds, and how long it took. */
export const during = async (what, task) => {
  const began = Date.now();
  let told = false;
  const timer = setTimeout(() => { told = true; say(`${what} …`); }, 2000);
  try {
    return await task();
  } finally {
    clearTimeout(timer);
    if (told) say(`${what}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
  }
};
