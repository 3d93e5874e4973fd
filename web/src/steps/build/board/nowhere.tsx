import { Button } from '@mantine/core';
import { freeSpot } from '@yunta/core/board/free';
import { sizeOf } from '@yunta/core/board/jacks';
import { sizeText } from '@yunta/core/board/said';
import { standAt } from '@yunta/core/edits/boards';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { Device } from '@yunta/core/rig/device';
import { useState } from 'react';
import { useRig } from '../../../shared/rig-context.js';

/** Boxes that stand nowhere yet: each goes to the first free place. */
export const Nowhere = ({ hookup, name, boxes }: { hookup: Hookup; name: string; boxes: readonly Device[] }) => {
  const { rig, edit, select } = useRig();
  const [full, setFull] = useState('');
  const put = (device: Device): void => {
    const free = freeSpot(rig, hookup, device.id, { at: name, x: 0, y: 0, turn: 0 });
    setFull(free ? '' : `${device.name} finds no free place on ${name}. It was put at the left in front.`);
    edit(standAt(hookup, { [device.id]: free ?? { at: name, x: 0, y: 0, turn: 0 } }), `${device.name} on ${name}`);
    select(device.id);
  };
  if (boxes.length === 0) return null;
  return (
    <section className="card" aria-label="Boxes that stand nowhere">
      <h2>Stand nowhere yet</h2>
      {full && (
        <p className="broken" role="alert">
          {full}
        </p>
      )}
      <ul className="board-nowhere">
        {boxes.map((device) => (
          <li key={device.id}>
            <Button size="compact-sm" variant="default" onClick={() => put(device)}>
              {device.name}
            </Button>{' '}
            <span className="soft">{sizeText(sizeOf(device).slice(0, 2))}</span>
          </li>
        ))}
      </ul>
    </section>
  );
};
