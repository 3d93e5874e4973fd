import { rigName } from '@yunta/core/rig/rig';
import { changeText } from '@yunta/core/sheets/change-words';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { outbox } from '../../shared/rig-context.js';
import { fileName, saveFile } from '../../shared/save-file.js';
import { api } from '../../session/api.js';
import { newId } from '../../session/ids.js';
import { sessionOf } from '../../session/outbox.js';
import { Sender, waitingRigs, type WaitingRig } from '../../session/waiting-rigs.js';

const LOOK_MS = 2000;

/** What waits in this browser, looked at again and again; what no open page holds is sent. */
export const useWaiting = (): { readonly waiting: readonly WaitingRig[]; readonly keeps: boolean } => {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<readonly WaitingRig[]>([]);
  const [keeps, setKeeps] = useState(true);
  useEffect(() => {
    let over = false;
    const sender = new Sender(api, outbox, newId, () => void queries.invalidateQueries({ queryKey: ['rigs'] }));
    const look = async () => {
      try {
        await sender.send();
        const now = await waitingRigs(outbox, navigator.locks, sender.pages);
        if (!over) setWaiting(now);
        setKeeps(true);
      } catch {
        setKeeps(false);
      }
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => {
      over = true;
      clearInterval(timer);
      sender.close();
    };
  }, [queries]);
  return { waiting, keeps };
};

/** All that waits of a rig, as text that a person reads and that can be typed in again. */
export const saveWaiting = async (rig: string): Promise<void> => {
  const sessions = (await outbox.all(rig)).map(sessionOf);
  const texts = sessions.flatMap((s) =>
    [...s.waiting, ...s.troubles].map((one) => changeText(s.rig, one.set.label, one.delta)),
  );
  const [first] = sessions;
  if (first) saveFile(`${fileName(rigName(first.rig), 'not saved')}.txt`, `${texts.join('\n\n')}\n`, 'text/plain');
};

export const letGo = async (rig: string): Promise<void> => {
  for (const { page } of await outbox.all(rig)) await outbox.drop(rig, page);
};
