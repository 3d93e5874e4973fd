import './monitors.css';
import { Button } from '@mantine/core';
import { isNamedBy, type MixView, type MonitorEnd } from '@yunta/core/derive/views/monitor-mix';
import { hearsAt, hearsSo, setMix, wishFor } from '@yunta/core/edits/mixes';
import { HOW_MUCH, type Hookup, type MonitorMix } from '@yunta/core/rig/hookup';
import { theId, type Id } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, partOf } from '@yunta/core/rig/rig';
import type { Song } from '@yunta/core/rig/show';
import { useState } from 'react';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { Paper, PrintButton, usePrinting } from '../../../shared/paper/paper.js';
import { useAsked, useRig } from '../../../shared/rig-context.js';
import { TypedLine } from '../../../shared/typed-line.js';

const NOBODY: MonitorMix = { hears: {} };

/** Who wants to hear what, on what, and how it gets there; wishes song by song. */
export const Monitors = ({ hookup }: { hookup: Hookup }) => {
  const { edit } = useRig();
  const seen = useAsked(['monitors', hookup.id, hookup.mixes], (worker) => worker.answers.monitors());
  const mixes = hookup.mixes ?? {};
  const add = (typed: string): readonly string[] => {
    const who = typed.trim();
    if (mixes[who]) return [`${who} is there already.`];
    return edit(setMix(hookup, who, NOBODY), `${who}: a monitor mix`).map(sayRefusal);
  };
  return (
    <>
      <div className="day-check-head">
        <TypedLine label="Who listens" description="" placeholder="Singer" button="Add" most={LONGEST.word} add={add} />
        {Object.keys(mixes).length > 0 && <PrintButton what="the monitor mixes" />}
      </div>
      {Object.keys(mixes).length === 0 && (
        <p className="soft">
          Nobody has said yet what they want to hear. Add who listens, then what of: “click, well”, “guitar, not at
          all”.
        </p>
      )}
      <div className="monitors">
        {Object.entries(mixes).map(([who, mix]) => (
          <Mix
            key={who}
            hookup={hookup}
            who={who}
            mix={mix}
            ends={seen?.ends ?? []}
            view={seen?.mixes.find((m) => m.who === who)}
          />
        ))}
      </div>
      <OnPaper mixes={seen?.mixes ?? []} name={hookup.name} />
    </>
  );
};

interface MixProps {
  readonly hookup: Hookup;
  readonly who: string;
  readonly mix: MonitorMix;
  readonly ends: readonly MonitorEnd[];
  readonly view: MixView | undefined;
}

const ELSEWHERE = 'not of this rig';
const NOT_SAID = 'take away';

/** What one person hears. */
const Mix = ({ hookup, who, mix, ends, view }: MixProps) => {
  const { edit } = useRig();
  const keep = (next: MonitorMix | undefined): readonly string[] =>
    edit(setMix(hookup, who, next), `${who}: monitor mix`).map(sayRefusal);
  const end = ends.find((e) => e.device === mix.at);
  const brings = end?.brings.filter((b) => !view?.lines.some((l) => isNamedBy(b.source, l.what)));
  return (
    <section className="card" aria-label={`Monitor mix of ${who}`}>
      <h2>{who}</h2>
      <Choice
        label="Listens on"
        data={[ELSEWHERE, ...ends.map((e) => ({ value: e.device, label: e.name }))]}
        value={mix.at ?? ELSEWHERE}
        choose={(at: Id<'device'> | typeof ELSEWHERE) => keep(hearsAt(mix, at === ELSEWHERE ? undefined : at))}
      />
      <ul className="monitors-lines">
        {view?.lines.map((line) => (
          <li key={line.what}>
            <strong>{line.what}</strong>
            <Choice
              aria-label={`${who} hears ${line.what}`}
              data={[...HOW_MUCH, NOT_SAID]}
              value={line.much}
              choose={(much) => keep(hearsSo(mix, line.what, much === NOT_SAID ? undefined : much))}
            />
            <span className={line.against ? 'broken' : 'soft'}>
              {line.against ? `Not wanted, and ${line.how}` : line.how}
            </span>
          </li>
        ))}
      </ul>
      {brings && brings.length > 0 && (
        <p className="soft">Comes by itself as well: {brings.map((b) => b.source).join(', ')}.</p>
      )}
      <TypedLine
        label={`What ${who} hears`}
        description=""
        placeholder="click"
        button="Hears it"
        most={LONGEST.word}
        add={(what) => keep(hearsSo(mix, what.trim(), 'well'))}
      />
      <Wishes who={who} />
      <Button size="compact-xs" variant="default" onClick={() => keep(undefined)}>
        Take {who} away
      </Button>
    </section>
  );
};

/** What somebody wants otherwise, song by song. */
const Wishes = ({ who }: { who: string }) => {
  const { rig, edit } = useRig();
  const songs = all(rig, 'song');
  const [chosen, choose] = useState<string>();
  const song = (chosen && partOf(rig, theId('song', chosen))) || songs[0];
  const save = (of: Song, wish: string): void => void edit(wishFor(of, who, wish), `${of.title}: what ${who} wants`);
  const wished = songs.filter((s) => s.wishes?.[who] !== undefined);
  if (!song) return null;
  return (
    <details className="monitors-wishes">
      <summary>
        {wished.length === 0 ? 'Wishes for a song' : `Wishes for ${wished.map((s) => s.title).join(', ')}`}
      </summary>
      <Choice
        label="Song"
        data={songs.map((s) => ({ value: s.id, label: s.title }))}
        value={song.id}
        choose={(id) => choose(id)}
      />
      <KeptField
        size="xs"
        label={`What ${who} wants otherwise in it`}
        placeholder="more drums in the bridge"
        most={LONGEST.remark}
        mayBeEmpty
        value={song.wishes?.[who] ?? ''}
        save={(wish) => save(song, wish)}
      />
    </details>
  );
};

const OnPaper = ({ mixes, name }: { mixes: readonly MixView[]; name: string }) => {
  if (!usePrinting()) return null;
  return (
    <Paper title={`Monitor mixes, ${name}`}>
      {mixes.map(({ who, at, lines, songs }) => (
        <section key={who}>
          <h2>
            {who}
            {at ? `, ${at.name}` : ''}
          </h2>
          <table className="plain tight">
            <tbody>
              {lines.map((l) => (
                <tr key={l.what}>
                  <td>{l.what}</td>
                  <td>{l.much}</td>
                  <td>{l.how}</td>
                </tr>
              ))}
              {songs.map((s) => (
                <tr key={s.title}>
                  <td>in {s.title}</td>
                  <td colSpan={2}>{s.wish}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </Paper>
  );
};
