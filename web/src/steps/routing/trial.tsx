import { Button, Select } from '@mantine/core';
import { CATALOGUE, generic } from '@yunta/core/catalogue/boxes';
import {
  beginTrial,
  endTrial,
  keepOnTrial,
  onTrial,
  trialNeeds,
  trialPlaces,
  type Tried,
} from '@yunta/core/edits/trial';
import { surely } from '@yunta/core/known/the';
import { theId, type Id } from '@yunta/core/rig/ids';
import type { Hookup } from '@yunta/core/rig/hookup';
import { all, partOf, thePart, type Rig } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { ConsequencesText } from '../../shared/consequences-text.js';
import { today } from '../../shared/dials/today.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { wiredBoxes } from '@yunta/core/rig/box';
import { newPartId } from '../../session/ids.js';
import { keyOf, placeText } from './place-text.js';

const newCable = (): Id<'cable'> => newPartId('cable');

/** A box to try tonight, borrowed or out of the case: where it can go, what it needs, and one press to take it off. */
export const Trial = ({ hookup }: { hookup: Hookup }) => {
  const { rig } = useRig();
  const [isOpen, open] = useState(false);
  return (
    <section className="trial" aria-label="On trial">
      {onTrial(rig).map((box) => (
        <OnTrial key={box.id} id={box.id} hookup={hookup} />
      ))}
      <Button variant="default" size="xs" aria-expanded={isOpen} onClick={() => open(!isOpen)}>
        Try a box tonight
      </Button>
      {isOpen && <Begin hookup={hookup} done={() => open(false)} />}
    </section>
  );
};

const OnTrial = ({ id, hookup }: { id: Id<'device'>; hookup: Hookup }) => {
  const { rig, edit } = useRig();
  const box = thePart(rig, id);
  return (
    <div className="on-trial">
      <p>
        <strong>{box.code}</strong> {box.name} is on trial since {box.trial?.since}.
      </p>
      <Button size="compact-xs" onClick={() => edit(endTrial(rig, hookup.id, id, newCable), `${box.code}: off again`)}>
        Take it off again
      </Button>{' '}
      <Button variant="default" size="compact-xs" onClick={() => edit(keepOnTrial(box), `${box.code}: it stays`)}>
        It stays
      </Button>
    </div>
  );
};

const choices = (rig: Rig, hookup: Hookup) => {
  const plugged = wiredBoxes(rig, hookup.id);
  return [
    {
      group: 'In the kit, not plugged in here',
      items: all(rig, 'device')
        .filter((d) => !plugged.has(d.id))
        .map((d) => ({ value: `kit ${d.id}`, label: `${d.code} ${d.name}` })),
    },
    {
      group: 'Borrowed',
      items: CATALOGUE.filter(({ box }) => box.zone === 'floor' && box.chains.length > 0).map(({ key, box }) => ({
        value: `borrowed ${key}`,
        label: box.name,
      })),
    },
  ].filter((g) => g.items.length > 0);
};

/** Which box, where, what it needs, what it does to every sound; then it is put there. */
const Begin = ({ hookup, done }: { hookup: Hookup; done: () => void }) => {
  const { rig, edit } = useRig();
  const [choice, choose] = useState<string | null>(null);
  const [key, setKey] = useState<string | null>(null);
  const tried = useMemo((): Tried | undefined => {
    if (!choice) return undefined;
    const what = choice.slice(choice.indexOf(' ') + 1);
    return choice.startsWith('kit ') ? { kit: theId('device', what) } : { borrowed: what, id: newPartId('device') };
  }, [choice]);
  const places = useMemo(() => (tried ? trialPlaces(rig, hookup.id, tried) : []), [rig, hookup.id, tried]);
  const place = places.find((p) => keyOf(p) === key) ?? places[0];
  const wish = useMemo(
    () => (tried && place ? beginTrial(rig, hookup.id, tried, place, newCable, today()) : undefined),
    [rig, hookup.id, tried, place],
  );
  const would = useAsked(
    ['trial', hookup.id, choice, place && keyOf(place)],
    (worker) => worker.answers.consequences(surely(wish)),
    wish !== undefined,
  );
  const box = tried && ('kit' in tried ? partOf(rig, tried.kit) : generic(tried.borrowed).box);
  const put = () => {
    if (wish && box && edit(wish, `${box.name} on trial`).length === 0) done();
  };
  return (
    <div className="trial-begin">
      <Select
        size="xs"
        label="Which box"
        placeholder="fuzz, delay, …"
        searchable
        data={choices(rig, hookup)}
        value={choice}
        onChange={choose}
        maxDropdownHeight={260}
      />
      {tried && places.length === 0 && <p className="soft">Nothing here has a place for it.</p>}
      {place && (
        <Select
          size="xs"
          label="Where"
          allowDeselect={false}
          data={places.map((p) => ({ value: keyOf(p), label: placeText(rig, p) }))}
          value={keyOf(place)}
          onChange={setKey}
        />
      )}
      {box && place && (
        <>
          <p style={{ margin: '8px 0 0' }}>
            <strong>It needs</strong>
          </p>
          <ul className="trial-needs">
            {trialNeeds(box).map((need) => (
              <li key={need}>{need}</li>
            ))}
          </ul>
          <ConsequencesText would={would} />
          <Button size="xs" mt={8} disabled={!would || would.refused !== undefined} onClick={put}>
            Put it there
          </Button>
        </>
      )}
    </div>
  );
};
