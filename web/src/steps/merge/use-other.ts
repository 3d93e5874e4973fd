import { fingerprint, originsOf, partings, withOrigin } from '@yunta/core/change/origin';
import { readRigFile } from '@yunta/core/formats/rig-file';
import { LARGEST_FILE } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { rigName, type Rig } from '@yunta/core/rig/rig';
import { surely } from '@yunta/core/known/the';
import { useState } from 'react';
import { api } from '../../session/api.js';
import { whyNot } from '../../session/rig-keeping.js';
import { useRig } from '../../shared/rig-context.js';

/** The rig to compare with, and the one from which both come when that is known. */
export interface Other {
  readonly name: string;
  readonly rig: Rig;
  readonly base?: Rig | undefined;
}

/** The rig from which two come, when this server has it just as it was then. */
const baseOf = async (mine: Rig, theirs: Rig): Promise<Rig | undefined> => {
  for (const { rig, revision, print } of partings(originsOf(mine), originsOf(theirs))) {
    const then = await api.at(rig, revision).catch(() => undefined);
    if (then && fingerprint(then) === print) return then;
  }
  return undefined;
};

/** Fetches a rig, or reads a file, to be compared with the rig that is open. */
export const useOther = () => {
  const { rigId, rig, state } = useRig();
  const [other, setOther] = useState<Other>();
  const [wrong, setWrong] = useState('');
  const [isReading, setReading] = useState(false);
  const read = async (what: () => Promise<{ readonly name: string; readonly rig: Rig }>) => {
    setWrong('');
    setReading(true);
    try {
      const found = await what();
      const mine = withOrigin(rig, rigId, surely(state.session).confirmed);
      setOther({ ...found, base: await baseOf(mine, found.rig) });
    } catch (e) {
      setOther(undefined);
      setWrong(e instanceof NotRead ? e.message : whyNot(e));
    } finally {
      setReading(false);
    }
  };
  const fromRig = (id: string) =>
    read(async () => {
      const theirs = await api.rig(id);
      return { name: rigName(theirs), rig: withOrigin(theirs, id) };
    });
  const fromFile = (file: File) =>
    read(async () => {
      if (file.size > LARGEST_FILE * 3) throw new NotRead(`${file.name} is too large for a rig file.`);
      const found = readRigFile(await file.text());
      if (!found.ok) throw new NotRead(`${file.name}: ${found.error.slice(0, 2).map(sayRefusal).join(' ')}`);
      return { name: file.name, rig: found.value };
    });
  return { other, fromRig, fromFile, leave: () => setOther(undefined), wrong, isReading };
};

/** A file that is no rig, said in words. */
class NotRead extends Error {}
