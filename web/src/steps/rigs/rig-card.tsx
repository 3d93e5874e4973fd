import { ActionIcon, Button, Menu } from '@mantine/core';
import type { Card } from '@yunta/core/derive/views/card';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { RunDrawing } from '../../picture/run.js';
import { api, type RigEntry } from '../../session/api.js';
import { copyRig, renameRig } from '../../session/rig-keeping.js';
import { saveRig } from '../../shared/save-file.js';
import { fits, TextField } from '../../shared/text-field.js';
import { Headline } from '../../shared/verdict.js';
import type { CardMaker } from '../../worker/client.js';
import { agoText, byWhom } from '../../shared/ago-text.js';
import { useCard } from './use-card.js';

interface RigCardProps {
  readonly rig: RigEntry;
  readonly names: readonly string[];
  readonly maker: CardMaker;
  readonly waits: ReactNode;
  /** Does something with the rig and says what became of it. */
  readonly act: (done: string, what: () => Promise<unknown>) => void;
}

const countText = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

/** What there is of it, in one line. */
const factsText = (card: Card): string =>
  [
    countText(card.boxes, 'box', 'boxes'),
    countText(card.sounds, 'sound'),
    card.songs ? countText(card.songs, 'song') : '',
    card.hookups.length > 1 ? `${card.hookups.length} hook-ups: ${card.hookups.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join(' · ');

/** Where one goes on with it. */
const roomFor = (card: Card | undefined): string => (!card || card.sounds ? 'sounds' : card.boxes ? 'routing' : 'kit');

/** A rig as one sees it from outside: its way, whether its sounds come back, what changed last, and what can be done. */
export const RigCard = ({ rig, names, maker, waits, act }: RigCardProps) => {
  const card = useCard(maker, rig);
  const [renaming, rename] = useState(false);
  return (
    <article className="card rig-card" aria-label={rig.name}>
      <div className="rig-card-head">
        {renaming ? (
          <Rename
            name={rig.name}
            done={(name) => {
              rename(false);
              if (name) act(`It is called “${name}” now.`, () => renameRig(rig.id, name));
            }}
          />
        ) : (
          <h2>
            <Link to={`/rig/${rig.id}/${roomFor(card)}`} className="any-name">
              {rig.name}
            </Link>
          </h2>
        )}
        <Doings rig={rig} names={names} act={act} rename={() => rename(true)} />
      </div>
      <div className="rig-card-run">
        {card && card.run.length > 0 && (
          <RunDrawing
            names="never"
            items={card.run}
            label={card.drawn ? `The way of ${card.drawn}` : 'The way of the signal'}
            said={(id) => card.names[id] ?? { code: '?', name: '' }}
          />
        )}
        {card && card.run.length === 0 && (
          <p className="soft">{card.boxes ? 'Not wired yet.' : 'Nothing in it yet.'}</p>
        )}
        {!card && <p className="soft">Drawing …</p>}
      </div>
      <div className="rig-card-says">
        {card?.stands && card.sounds > 0 && (
          <>
            {card.hookups.length > 1 && `${card.hookups[0]}: `}
            <Headline tally={card.stands.tally} limbs={card.stands.limbs} />
          </>
        )}
        {card && card.sounds === 0 && <span className="soft">No sounds yet.</span>}
      </div>
      <div className="soft">{card ? factsText(card) : ' '}</div>
      {rig.last && (
        <div className="soft">
          {rig.demo && rig.revision === 1
            ? 'Ships with Yunta'
            : `${rig.last.label}, ${agoText(rig.last.when, new Date())}${byWhom(rig.last.who)}`}
        </div>
      )}
      {waits}
    </article>
  );
};

const Rename = ({ name, done }: { name: string; done: (name: string | undefined) => void }) => {
  const [typed, setTyped] = useState(name);
  return (
    <form
      className="rig-card-rename"
      onSubmit={(e) => {
        e.preventDefault();
        if (fits(typed, LONGEST.name)) done(typed.trim());
      }}
    >
      <TextField
        aria-label={`New name of ${name}`}
        most={LONGEST.name}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onKeyDown={(e) => e.key === 'Escape' && done(undefined)}
        autoFocus
      />
      <Button type="submit" size="sm" disabled={!fits(typed, LONGEST.name)}>
        Rename
      </Button>
    </form>
  );
};

const Doings = ({ rig, names, act, rename }: Pick<RigCardProps, 'rig' | 'names' | 'act'> & { rename: () => void }) => {
  const save = async () => saveRig(await api.rig(rig.id), rig.id);
  return (
    <Menu position="bottom-end" width={210}>
      <Menu.Target>
        <ActionIcon variant="default" size="lg" aria-label={`What to do with ${rig.name}`}>
          ⋯
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={rename}>Rename</Menu.Item>
        <Menu.Item
          onClick={() =>
            act(`A copy of “${rig.name}” was made.`, async () => copyRig(await api.rig(rig.id), rig.id, names))
          }
        >
          Make a copy
        </Menu.Item>
        <Menu.Item onClick={() => act(`“${rig.name}” was saved as a file.`, save)}>Save as a rig file</Menu.Item>
        <Menu.Item component={Link} to={`/rig/${rig.id}/merge`}>
          Compare or merge
        </Menu.Item>
        <Menu.Item
          onClick={() => act(`“${rig.name}” was put away. It can be brought back below.`, () => api.putAway(rig.id))}
        >
          Put away
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
};
