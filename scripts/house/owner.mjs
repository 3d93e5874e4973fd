import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, lchownSync, lstatSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fail, home, root } from './say.mjs';

const me = () => process.getuid?.() ?? 0;
export const isRoot = () => me() === 0 && process.platform !== 'win32';

const nearest = (path) => (existsSync(path) ? path : nearest(dirname(path)));

/** What a user is called; a number when the system has no name for it. */
export const userName = (uid) =>
  spawnSync('id', ['-un', String(uid)], { encoding: 'utf8' }).stdout?.trim() || `user number ${uid}`;

/** Who owns a path, or the folder nearest to it that is there. */
export const ownerOf = (path) => {
  const { uid, gid } = statSync(nearest(path));
  return { uid, gid };
};

/**
 * From here on this process is another user; only root can do so, and there is no way back. What older versions made
 * as root in that user's folder is handed over.
 */
export const become = ({ uid, gid }) => {
  giveTo({ uid, gid }, home);
  const named = spawnSync('getent', ['passwd', String(uid)], { encoding: 'utf8' }).stdout?.split(':') ?? [];
  if (named[0]) process.initgroups(named[0], gid);
  else process.setgroups([gid]);
  process.setgid(gid);
  process.setuid(uid);
  process.env.HOME = named[5] || root;
};

/** What npm and the build made goes to the owner of the program's folder, so that they can make it anew. */
export const handOverBuilt = () => {
  const owner = ownerOf(root);
  if (owner.uid === 0) return;
  const made = ['core', 'cli', 'server', 'web', 'e2e'].flatMap((w) => [
    join(root, w, 'dist'),
    join(root, w, 'dist-testing'),
  ]);
  for (const path of [join(root, 'node_modules'), ...made])
    if (existsSync(path) && statSync(path).uid !== owner.uid) giveTo(owner, path);
};

/**
 * Hands a folder with all that is in it to a user; what is that user's already is left alone. Links are not followed,
 * and a file that stands elsewhere too is not touched.
 */
export const giveTo = ({ uid, gid }, path) => {
  const found = lstatSync(path, { throwIfNoEntry: false });
  if (!found || (found.isFile() && found.nlink > 1)) return;
  if (found.uid !== uid || found.gid !== gid) lchownSync(path, uid, gid);
  if (found.isDirectory()) for (const name of readdirSync(path)) giveTo({ uid, gid }, join(path, name));
};

/**
 * A folder that nobody but its owner may look into, made when it is missing.
 * @throws Failure when somebody else has something of that name there
 */
export const ownFolder = (path, as) => {
  const there = lstatSync(path, { throwIfNoEntry: false });
  if (there && (!there.isDirectory() || ![0, me(), as?.uid].includes(there.uid)))
    fail(`${path} belongs to ${userName(there.uid)} and is in the way. Have it removed, then run this again.`);
  mkdirSync(path, { recursive: true, mode: 0o700 });
  if (isRoot() && as) lchownSync(path, as.uid, as.gid);
  chmodSync(path, 0o700);
};

const idOf = (kind, name) => Number(spawnSync('id', [kind, name], { encoding: 'utf8' }).stdout);

/** The user that a database of a folder runs as: whoever has the data; for root an unprivileged user of the system. */
export const databaseUser = (data) => {
  const owner = statSync(data, { throwIfNoEntry: false });
  if (!isRoot()) {
    if (owner && owner.uid !== me()) {
      fail(
        `The data in ${data} belongs to ${userName(owner.uid)}. Run Yunta as ${userName(owner.uid)}, or once as root (sudo ./yunta start), which hands it to the owner of this folder; or choose a folder of your own with YUNTA_HOME.`,
      );
    }
    return { uid: me(), gid: process.getgid?.() ?? 0 };
  }
  if (owner && owner.uid !== 0) return { uid: owner.uid, gid: owner.gid };
  const [uid, gid] = [idOf('-u', 'mysql'), idOf('-g', 'mysql')];
  if (!uid)
    fail(
      'The database must not run as root, and this system has no user "mysql" to run it as. Debian\'s package mariadb-server brings it: apt-get install --reinstall mariadb-server',
    );
  return { uid, gid };
};

/** Whether a user gets as far as a folder. */
export const canReach = ({ uid, gid }, folder) =>
  !isRoot() ||
  spawnSync('/bin/sh', ['-c', 'cd "$0"', nearest(folder)], { uid, gid, cwd: '/', stdio: 'ignore' }).status === 0;
