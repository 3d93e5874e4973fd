import './houses.css';
import { Button } from '@mantine/core';
import { gigLines } from '@yunta/core/derive/views/gig';
import { addHouse, changeHouse, housesOf, nightsOf, noteNight, removeHouse } from '@yunta/core/edits/houses';
import { readDay } from '@yunta/core/edits/open-points';
import type { House } from '@yunta/core/rig/house';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { HOUSES } from '@yunta/core/rig/show';
import { useState } from 'react';
import { newPartId } from '../../../session/ids.js';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { Numbered } from '../../../shared/numbered.js';
import { useAsked, useRig } from '../../../shared/rig-context.js';
import { TextField } from '../../../shared/text-field.js';
import { today } from '../../../shared/today.js';
import { TypedLine } from '../../../shared/typed-line.js';

/** What was found at each house, and the rig held against it before one goes there again. */
export const Houses = () => {
  const { rig, edit } = useRig();
  const houses = housesOf(rig);
  const [chosen, choose] = useState<string>();
  const house = houses.find((h) => h.id === chosen) ?? houses[0];
  const add = (typed: string): readonly string[] => {
    const id = newPartId('house');
    const refused = edit(addHouse(id, typed.trim()), `${typed.trim()}: a house`);
    if (refused.length === 0) choose(id);
    return refused.map(sayRefusal);
  };
  return (
    <div className="road-both">
      <section className="card" aria-label="Houses">
        <h2>Houses</h2>
        {houses.length === 0 && (
          <p className="soft">
            No house yet. Write down where you play: what was found there is at hand when you come again.
          </p>
        )}
        <ul className="road-list">
          {houses.map((h) => (
            <li key={h.id}>
              <button
                type="button"
                className={h.id === house?.id ? 'chosen' : ''}
                aria-pressed={h.id === house?.id}
                onClick={() => choose(h.id)}
              >
                <strong>{h.name}</strong>
                <span className="soft">{lastText(h)}</span>
              </button>
            </li>
          ))}
        </ul>
        <div className="houses-new">
          <TypedLine
            label={houses.length ? 'Another house' : 'Your first house'}
            description=""
            placeholder="The old barn"
            button="Add"
            most={LONGEST.name}
            add={add}
          />
        </div>
      </section>
      {house && <Sheet key={house.id} house={house} />}
    </div>
  );
};

const lastText = (house: House): string => {
  const [last] = nightsOf(house);
  return last === undefined ? 'no night yet' : last > today() ? `next ${last}` : `last ${last}`;
};

const ANY = 'not said';
const WORDS = [
  ['lift', 'Ground lifted where', 'DI of the bass'],
  ['eq', 'EQ over all', '-3 dB at 160 Hz'],
  ['room', 'The room', 'stone, booms at the back wall'],
] as const;

/** All that is known of a house. */
const Sheet = ({ house }: { house: House }) => {
  const { edit } = useRig();
  const say = (change: Parameters<typeof changeHouse>[1]): void =>
    void edit(changeHouse(house, change), `${house.name}: what was found`);
  return (
    <section className="card" aria-label={`House: ${house.name}`}>
      <h2>{house.name}</h2>
      <Against house={house} />
      <div className="fields houses-facts">
        <KeptField size="xs" label="Name" most={LONGEST.name} value={house.name} save={(name) => say({ name })} />
        <Choice
          label="The house is"
          data={[ANY, ...HOUSES]}
          value={house.sound ?? ANY}
          choose={(sound) => say({ sound: sound === ANY ? undefined : sound })}
        />
        <Numbered
          shown
          label="Mains sockets on stage"
          max={100}
          value={house.sockets}
          save={(sockets) => say({ sockets })}
          clear={() => say({ sockets: undefined })}
        />
        {WORDS.map(([key, label, placeholder]) => (
          <KeptField
            key={key}
            size="xs"
            label={label}
            placeholder={placeholder}
            most={LONGEST.remark}
            mayBeEmpty
            value={house[key] ?? ''}
            save={(text) => say({ [key]: text || undefined })}
          />
        ))}
      </div>
      {house.lift && (
        <p className="soft">
          Lift the ground of a signal only, at a DI box. Never that of the mains: ask a licensed electrician where a
          house hums.
        </p>
      )}
      <Nights house={house} />
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => edit(removeHouse(house.id), `Take ${house.name} away`)}
      >
        Take the house away
      </Button>
    </section>
  );
};

/** The rig as it is plugged now, against what the house has. */
const Against = ({ house: { sound, sockets } }: { house: House }) => {
  const { rig, hookup } = useRig();
  const boxes = useAsked(['gig boxes', hookup?.id], (worker) => worker.answers.gigBoxes());
  if (!hookup || !boxes || boxes.length === 0) return null;
  const lines = gigLines(
    { rig, hookup },
    { ...(sound ? { house: sound } : {}), ...(sockets === undefined ? {} : { sockets }) },
    boxes,
  ).filter((l) => !l.asks.endsWith('within its weight'));
  if (lines.length === 0) return null;
  return (
    <ul className="houses-lines" role="status" aria-label={`${hookup.name} against the house`}>
      {lines.map(({ asks, is, holds }) => (
        <li key={asks} className={holds ? '' : 'broken'}>
          <strong>{holds ? '✓' : '✗'}</strong> {asks}: {is}
        </li>
      ))}
    </ul>
  );
};

/** Nights there, the last first, each with what was found. */
const Nights = ({ house }: { house: House }) => {
  const { edit } = useRig();
  const [day, setDay] = useState(today());
  const [found, setFound] = useState('');
  const [wrong, setWrong] = useState('');
  const note = (): void => {
    const read = readDay(day);
    if (!read.ok) return setWrong(read.error.map(sayRefusal).join(' '));
    const refused = edit(noteNight(house, read.value, found.trim()), `${house.name}: ${read.value}`);
    setWrong(refused.map(sayRefusal).join(' '));
    if (refused.length === 0) setFound('');
  };
  return (
    <>
      <h3>Nights</h3>
      <ul className="houses-nights">
        {nightsOf(house).map((on) => (
          <li key={on}>
            <span className="mono">{on}</span> {house.nights[on] || <span className="soft">nothing noted</span>}{' '}
            <Button
              size="compact-xs"
              variant="default"
              aria-label={`Take the night of ${on} away`}
              onClick={() => edit(noteNight(house, on, undefined), `${house.name}: not on ${on}`)}
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="houses-night"
        onSubmit={(e) => {
          e.preventDefault();
          note();
        }}
      >
        <TextField
          size="xs"
          label="Day"
          most={LONGEST.label}
          value={day}
          error={wrong || undefined}
          onChange={(e) => {
            setDay(e.currentTarget.value);
            setWrong('');
          }}
        />
        <TextField
          size="xs"
          label="What was found"
          placeholder="house desk has phantom power on every channel"
          most={LONGEST.remark}
          value={found}
          onChange={(e) => setFound(e.currentTarget.value)}
        />
        <Button type="submit" size="xs" variant="default">
          Note the night
        </Button>
      </form>
    </>
  );
};
