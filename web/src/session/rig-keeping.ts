import { withOrigin } from '@yunta/core/change/origin';
import { readRigFile, writeRigFile } from '@yunta/core/formats/rig-file';
import { ABOUT, everyPart, newRig, partOf, rigName, rigOf, type Rig } from '@yunta/core/rig/rig';
import { sayRefusal } from '@yunta/core/rig/result';
import { api, Away, Failing, RefusedByServer } from './api.js';
import { newId } from './ids.js';

const slug = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 30);

const named = (rig: Rig, name: string): Rig => {
  const about = partOf(rig, ABOUT) ?? partOf(newRig(name), ABOUT);
  return about ? rigOf([...everyPart(rig).filter((p) => p.id !== ABOUT), { ...about, name }]) : rig;
};

interface Wish {
  readonly id: string;
  readonly change: string;
}
/**
 * What was asked for and not answered yet: asked again it is the same rig, so that a lost answer makes no second one.
 */
const asked = new Map<string, Wish>();

/**
 * Makes a rig of a rig file's text.
 * @param label how it came about, in the words of the history
 * @returns the id under which the server keeps it
 */
export const makeRig = async (file: string, name: string, label = 'From a rig file'): Promise<string> => {
  const key = `${name}\n${file}`;
  const wish = asked.get(key) ?? { id: `${slug(name) || 'rig'}-${newId().slice(2, 8)}`, change: newId() };
  asked.set(key, wish);
  await api.create(wish.id, wish.change, file, label);
  asked.delete(key);
  return wish.id;
};

export const makeRigOf = (rig: Rig, label: string): Promise<string> => makeRig(writeRigFile(rig), rigName(rig), label);

/** A name that no other rig has. @example freeName('Gig', ['Gig', 'Gig, copy']) // 'Gig, copy 2' */
export const copyName = (name: string, taken: readonly string[]): string => {
  const names = new Set(taken);
  const first = `${name}, copy`;
  if (!names.has(first)) return first;
  for (let n = 2; ; n += 1) if (!names.has(`${first} ${n}`)) return `${first} ${n}`;
};

/** Makes a copy that knows of which rig it is one. @param confirmed the rig as the server has it */
export const copyRig = async (rig: Rig, id: string, taken: readonly string[], confirmed: Rig = rig): Promise<string> =>
  makeRigOf(named(withOrigin(rig, id, confirmed), copyName(rigName(rig), taken)), `Copied from ${rigName(rig)}`);

/** Gives a rig that is not open another name, as a change of its own. */
export const renameRig = async (id: string, name: string): Promise<void> => {
  const rig = await api.rig(id);
  const about = partOf(rig, ABOUT);
  if (!about) return;
  const set = { id: newId(), base: rig.revision, label: `Name: ${name}`, put: [{ ...about, name }], remove: [] };
  await api.send(id, set);
};

/** Why a request came to nothing, in words. */
export const whyNot = (e: unknown): string => {
  if (e instanceof Away)
    return e.why
      ? `${e.why.title}. ${e.why.detail}`
      : 'The server does not answer; it is not known whether it was done. Try again when it is back: it is done once.';
  return e instanceof RefusedByServer || e instanceof Failing ? e.problem.detail : String(e);
};

/** The text of a rig file, looked at before it is sent: what is wrong is said by the file's name. */
export const checkedFile = (name: string, text: string): { readonly text: string; readonly wrong?: string } => {
  const read = readRigFile(text);
  return read.ok ? { text } : { text, wrong: `${name}: ${read.error.slice(0, 2).map(sayRefusal).join(' ')}` };
};
