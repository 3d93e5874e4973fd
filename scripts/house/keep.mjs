import { existsSync, renameSync, rmSync } from 'node:fs';
import { createInterface } from 'node:readline/promises';
import { join } from 'node:path';
import {
  backups,
  contents,
  contentsInWords,
  fileFor,
  FOLDER,
  keepBackup,
  loadBackup,
  readBackup,
  writeBackup,
} from './backup.mjs';
import { DATABASE_NEEDS, prepare } from './packages.mjs';
import { fail, inWords, say } from './say.mjs';
import { busy, database, folderLock, withDatabase } from './start.mjs';

/** ./yunta backup [FILE] */
export const backup = async (words) => {
  if (words.length > 1 || words[0]?.startsWith('-'))
    fail('./yunta backup takes the name of a file or folder, or nothing.', 2);
  await prepare(DATABASE_NEEDS, 'core');
  const file = fileFor(words[0]);
  if (existsSync(file)) fail(`${file} is there already. Choose another name; a backup is never written over.`, 2);
  const held = await withDatabase('backup', (open) => writeBackup(open, file));
  if (!held) fail('There is nothing to back up yet: no rig was ever saved here.');
  say(`${file} holds ${contentsInWords(held)}.`);
};

const agreed = async (words) => {
  if (words.includes('--yes')) return true;
  if (!process.stdin.isTTY) fail('Nothing was changed. To go on without being asked: ./yunta restore FILE --yes', 2);
  const ask = createInterface({ input: process.stdin, output: process.stderr });
  const answer = await ask.question('Replace it? (y/n) ');
  ask.close();
  return /^y(es)?$/i.test(answer.trim());
};

const list = () => {
  const names = backups();
  if (names.length === 0)
    return say('No backup was made in this folder yet. ./yunta restore FILE takes one from elsewhere.');
  say('These backups were made here, the newest last:\n');
  for (const name of names) say(`  ./yunta restore ${join(FOLDER, name)}`);
};

/** What stands here now, and a backup of it when it can be read, so that also this can be undone. */
const lookAround = async () => {
  const now = database();
  now.settleIn();
  if (!existsSync(now.data)) return { here: 'nothing yet' };
  try {
    await now.start();
    const held = contents(now);
    return { here: held ? contentsInWords(held) : 'nothing yet', before: held && (await keepBackup(now)) };
  } catch (e) {
    return { here: `data that cannot be read (${inWords(e).split('\n')[0]})` };
  } finally {
    await now.stop();
  }
};

/** ./yunta restore FILE: all rigs as a backup holds them. What stood there is set aside. */
export const restore = async (words) => {
  const named = words.filter((w) => w !== '--yes');
  if (named.length === 0) return list();
  if (named.length > 1 || named[0].startsWith('--')) fail('./yunta restore takes one file, and --yes.', 2);
  await prepare(DATABASE_NEEDS, 'core');
  const lock = folderLock();
  const other = lock.take('restore');
  if (other) fail(busy(other));
  try {
    await replace(fileFor(named[0]), words);
  } finally {
    lock.letGo();
  }
};

const replace = async (file, words) => {
  const held = await readBackup(file);
  const { here, before } = await lookAround();
  say(
    `Here now: ${here}.\nThe backup of ${held.made.slice(0, 16).replace('T', ' ')} holds ${contentsInWords(held)}, and takes its place.`,
  );
  if (!(await agreed(words))) return say('Nothing was changed.');
  const fresh = database();
  fresh.settleIn();
  const aside = `${fresh.data}.before-restore-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}`;
  const had = existsSync(fresh.data);
  await fresh.retireStrays();
  if (had) renameSync(fresh.data, aside);
  try {
    await fresh.start();
    await loadBackup(fresh, file);
    const now = contents(fresh);
    if (now?.changes !== held.changes || now.rigs.length !== held.rigs.length)
      fail('The backup was not put back whole.');
  } catch (e) {
    await fresh.stop();
    rmSync(fresh.data, { recursive: true, force: true });
    if (had) renameSync(aside, fresh.data);
    throw e;
  }
  await fresh.stop();
  say(`Restored: ${contentsInWords(held)}.`);
  if (had) say(`What stood here is set aside in ${aside}${before ? `, and as a backup in ${before}` : ''}.`);
};
