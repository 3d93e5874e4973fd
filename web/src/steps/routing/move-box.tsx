import { Button, Select } from '@mantine/core';
import { moveBox, placesFor, type BoxPlace } from '@yunta/core/edits/place';
import type { Device } from '@yunta/core/rig/device';
import type { Hookup } from '@yunta/core/rig/hookup';
import { useMemo, useState } from 'react';
import { ConsequencesText } from '../../shared/consequences-text.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { newPartId } from '../../session/ids.js';
import { keyOf, placeText } from './place-text.js';
import { surely } from '@yunta/core/known/the';

/** Another place for a box, its way in and out with it; what that does to every sound is said first. */
export const MoveBox = ({ device, hookup }: { device: Device; hookup: Hookup }) => {
  const { rig, edit } = useRig();
  const [key, setKey] = useState<string | null>(null);
  const places = useMemo(() => placesFor(rig, hookup.id, device.id), [rig, hookup.id, device.id]);
  const place = places.find((p) => keyOf(p) === key);
  const wish = useMemo(
    () => place && moveBox(rig, hookup.id, device.id, place, () => newPartId('cable')),
    [rig, hookup.id, device.id, place],
  );
  const would = useAsked(
    ['consequences of moving', hookup.id, device.id, key],
    (worker) => worker.answers.consequences(surely(wish)),
    wish !== undefined,
  );
  if (places.length === 0) return null;
  const group = (name: string, is: (p: BoxPlace) => boolean) => ({
    group: name,
    items: places.filter(is).map((p) => ({ value: keyOf(p), label: placeText(rig, p) })),
  });
  const groups = [
    group('Free loops', (p) => p.is === 'loop'),
    group('Between two boxes', (p) => p.is === 'between'),
    group('In exchange for another', (p) => p.is === 'exchange'),
    group('Or', (p) => p.is === 'out of the path'),
  ].filter((g) => g.items.length);
  const move = () => {
    if (wish && place && edit(wish, `${device.code}: ${placeText(rig, place).toLowerCase()}`).length === 0)
      setKey(null);
  };
  return (
    <div style={{ marginTop: 12 }}>
      <Select
        size="xs"
        label="Move it to"
        placeholder="another place"
        searchable
        clearable
        data={groups}
        value={place ? key : null}
        onChange={setKey}
        maxDropdownHeight={240}
        nothingFoundMessage="No such place"
      />
      {wish && (
        <div style={{ fontSize: 14 }}>
          <ConsequencesText would={would} />
          <Button size="xs" mt={8} disabled={!would || would.refused !== undefined} onClick={move}>
            Move it
          </Button>
        </div>
      )}
    </div>
  );
};
