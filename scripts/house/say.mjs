import { resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '../..');
export const home = resolve(process.env.YUNTA_HOME ?? `${root}/.yunta`);

// A reader that has seen enough closes its end: what is still to say is then left unsaid, quietly.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (e) => {
    if (e.code !== 'EPIPE') throw e;
  });

export const say = (text) => process.stderr.write(`${text}\n`);

/** Something that keeps Yunta from going on, in words for the person at the keyboard. */
export class Failure extends Error {
  constructor(text, code = 1) {
    super(text);
    this.code = code;
  }
}

/** @throws Failure always: whoever started something stops it on the way out */
export const fail = (text, code = 1) => {
  throw new Failure(text, code);
};

const SYSTEM_SAYS = {
  ENOSPC: 'The disk is full. Free some space there, then run this again; nothing that was saved is lost.',
  EDQUOT:
    'Your share of the disk is used up. Free some space there, then run this again; nothing that was saved is lost.',
  EACCES:
    'This user may not do that there. Run Yunta as the user that owns the folder, or choose another with YUNTA_HOME.',
  EPERM:
    'This user may not do that there. Run Yunta as the user that owns the folder, or choose another with YUNTA_HOME.',
  EROFS: 'The disk can only be read. Choose a folder on another with YUNTA_HOME.',
};

/**
 * With what a command ends: 2 for a slip of the person at the keyboard, 1 when something stands in the way, 3 for a
 * fault of the program.
 */
export const codeOf = (error) => (error instanceof Failure ? error.code : SYSTEM_SAYS[error?.code] ? 1 : 3);

/**
 * What went wrong, for a person: our own words, or what the system's refusal means. A fault of the program itself
 * keeps its trace.
 */
export const inWords = (error) => {
  if (error instanceof Failure) return error.message;
  const meaning = SYSTEM_SAYS[error?.code];
  return meaning ? `${error.path ?? home}: ${meaning}` : `A fault in Yunta: ${error?.stack ?? error}`;
};

/** Runs a task; says what is going on when it takes longer than two seconds, and how long it took. */
export const during = async (what, task) => {
  const began = Date.now();
  let told = false;
  const timer = setTimeout(() => {
    told = true;
    say(`${what} …`);
  }, 2000);
  try {
    return await task();
  } finally {
    clearTimeout(timer);
    if (told) say(`${what}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
  }
};
