import { someOf } from '@yunta/core/known/some-of';
import { Button, Select, type ComboboxParsedItem, type OptionsFilter } from '@mantine/core';
import { SHELVES } from '@yunta/core/catalogue/boxes';
import { replaceDevice } from '@yunta/core/edits/replace';
import type { Device } from '@yunta/core/rig/device';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { ConsequencesText } from '../../shared/consequences-text.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { surely, theFirst } from '@yunta/core/known/the';

const stagesOf = (device: Pick<Device, 'chains'>): readonly string[] =>
  device.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' ? [s.stage] : [])));

/** Boxes that do the same come first, then the shelves. */
const choicesFor = (device: Device) => {
  const stages = stagesOf(device);
  const isAlike = (key: string, box: Pick<Device, 'chains'>) =>
    key !== device.made && stagesOf(box).some((s) => stages.includes(s));
  const option = (g: { key: string; says: readonly string[] }) => ({ value: g.key, label: theFirst(g.says) });
  const alike = SHELVES.flatMap((s) => s.boxes.filter((g) => isAlike(g.key, g.box)).map(option));
  const others = SHELVES.map((s) => ({
    group: s.name,
    items: s.boxes.filter((g) => g.key !== device.made && !isAlike(g.key, g.box)).map(option),
  })).filter((g) => g.items.length);
  return alike.length ? [{ group: 'Does the same', items: alike }, ...others] : others;
};

const SAYS = new Map(SHELVES.flatMap((s) => s.boxes.map((g) => [g.key, g.says.join(' ').toLowerCase()] as const)));
/** A box is found by every word that people have for it. */
const isMeant = (value: string, search: string): boolean =>
  search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => SAYS.get(value)?.includes(word));
const meant: OptionsFilter = ({ options, search }) =>
  options.flatMap((option): ComboboxParsedItem[] => {
    if (!('group' in option)) return isMeant(option.value, search) ? [option] : [];
    const items = option.items.filter((item) => isMeant(item.value, search));
    return items.length ? [{ ...option, items }] : [];
  });

/** Another box in the place of this one; what it would do to every sound is said before it is done. */
export const Swap = ({ device }: { device: Device }) => {
  const { rig, edit } = useRig();
  const [key, setKey] = useState<string | null>(null);
  const choices = useMemo(() => choicesFor(device), [device]);
  const replacement = useMemo(() => (key ? replaceDevice(rig, device.id, key) : undefined), [rig, device, key]);
  const would = useAsked(
    ['consequences', device.id, key],
    (worker) => worker.answers.consequences(surely(replacement).edit),
    replacement !== undefined,
  );
  const shown = useRef<HTMLDivElement>(null);
  useEffect(() => {
    void shown.current?.scrollIntoView({ block: 'nearest' });
  }, [key, would]);
  const swap = () => {
    if (replacement && edit(replacement.edit, `${device.name} for ${replacement.device.name}`).length === 0)
      setKey(null);
  };
  const memory = device.memories.find((m) => !m.inside);
  return (
    <div className="swap">
      <Select
        label="Swap it for"
        placeholder="another box"
        searchable
        filter={meant}
        clearable
        data={choices}
        value={key}
        onChange={setKey}
        maxDropdownHeight={260}
        nothingFoundMessage="No such box"
      />
      {replacement && (
        <div ref={shown} className="card swap-would">
          <p className="swap-line">
            {replacement.follows.cables} {replacement.follows.cables === 1 ? 'cable goes' : 'cables go'} over
            {replacement.follows.sounds
              ? `, with what ${replacement.follows.sounds} ${replacement.follows.sounds === 1 ? 'sound wants' : 'sounds want'} of it`
              : ''}
            .
          </p>
          {replacement.lost.length > 0 && (
            <p className="swap-line">Has no place there: {someOf(replacement.lost, 6, '; ')}.</p>
          )}
          {replacement.follows.programs > 0 && (
            <p className="swap-line">
              {replacement.follows.programs === 1
                ? 'Its program is to be dialled in again'
                : `Its ${replacement.follows.programs} programs are to be dialled in again`}
              .
            </p>
          )}
          <ConsequencesText would={would} />
          <Button size="xs" mt={10} disabled={!would || would.refused !== undefined} onClick={swap}>
            Swap
          </Button>
        </div>
      )}
      {!replacement && memory && (
        <Link
          to={{ pathname: '../program', search: `?show=type&box=${encodeURIComponent(`${device.id} ${memory.id}`)}` }}
        >
          What to {memory.by === undefined ? 'dial in' : 'type in'} here
        </Link>
      )}
    </div>
  );
};
