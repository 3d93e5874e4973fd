import { apply } from '@yunta/core/change/apply';
import { LARGEST_FILE } from '@yunta/core/rig/limits';
import { all, newRig, type Rig } from '@yunta/core/rig/rig';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { checkedFile, makeRig, makeRigOf, whyNot } from '../../session/rig-keeping.js';
import type { SaidBoxes } from '../../shared/said/said.js';

const NAMELESS = 'New rig';

/** Makes rigs of what was said, or of files, and goes to where one goes on; says why where it comes to nothing. */
export const useBegin = (name: string, said: SaidBoxes, changed: () => Promise<unknown>) => {
  const navigate = useNavigate();
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [making, setMaking] = useState(false);
  const work = async (what: () => Promise<string | undefined>) => {
    setWrong([]);
    setMaking(true);
    try {
      const to = await what();
      begunAs.current = undefined;
      await changed();
      if (to) void navigate(to);
    } catch (e) {
      setWrong([whyNot(e)]);
    } finally {
      setMaking(false);
    }
  };
  /** Asked for again it is the same rig: a lost answer makes no second one. */
  const begunAs = useRef<{ readonly of: string; readonly rig: Rig }>(undefined);
  const begun = (): Rig => {
    const of = JSON.stringify([name, said.line, said.choices, said.wires]);
    if (begunAs.current?.of !== of) begunAs.current = { of, rig: beginning() };
    return begunAs.current.rig;
  };
  const beginning = (): Rig => {
    const rig = newRig(name.trim() || NAMELESS);
    const added = apply(rig, said.adding(rig, all(rig, 'hookup')[0]?.id));
    return added.ok ? added.value.rig : rig;
  };
  const begin = (room: string) => work(async () => `/rig/${await makeRigOf(begun(), 'Begun')}/${room}`);
  const open = (files: readonly File[]) =>
    work(async () => {
      const troubles: string[] = [];
      const made: string[] = [];
      for (const file of files) {
        const { text, wrong: why } =
          file.size > LARGEST_FILE * 3
            ? { text: '', wrong: `${file.name} is too large for a rig file: ${Math.round(file.size / 1_000_000)} MB.` }
            : checkedFile(file.name, await file.text());
        if (why) troubles.push(why);
        else made.push(await makeRig(text, file.name.replace(/\.yunta\.json$|\.json$/, '')));
      }
      setWrong(troubles);
      return made.length === 1 && files.length === 1 ? `/rig/${made[0]}/kit` : undefined;
    });
  return { begin, open, making, wrong };
};
