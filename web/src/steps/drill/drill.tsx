import '../stage/stage.css';
import './drill.css';
import type { Drill as Dance } from '@yunta/core/derive/views/drill';
import { all } from '@yunta/core/rig/rig';
import type { Song } from '@yunta/core/rig/show';
import {
  dueFirst,
  practisedAfter,
  scoreDrill,
  type DrillHit,
  type DrillScore,
} from '@yunta/core/derive/views/drill-score';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { RigProvider, useAsked, useRig } from '../../shared/rig-context.js';
import { useAwake } from '../stage/use-awake.js';
import { atSpeed, endOf, fromCue } from './clock.js';
import { Outcome } from './outcome.js';
import { keepPractised, readPractised } from './practised.js';
import { Round } from './round.js';

/** The cues of a song danced in time: what comes, when, and how the feet did. */
export const Drill = () => {
  const { rigId = '' } = useParams();
  return (
    <RigProvider
      key={rigId}
      rigId={rigId}
      fallback={() => (
        <main className="stage drill">
          <p className="stage-wait">
            Opening … <Link to="/">All rigs</Link>
          </p>
        </main>
      )}
    >
      <Choosing />
    </RigProvider>
  );
};

const Choosing = () => {
  const { rig } = useRig();
  const [params, setParams] = useSearchParams();
  const list = all(rig, 'setList').find((l) => l.id === params.get('list')) ?? all(rig, 'setList')[0];
  const songs = all(rig, 'song');
  const song = songs.find((s) => s.id === params.get('song'));
  const choose = (id: Song['id']): void =>
    setParams({ ...(list ? { list: list.id } : {}), song: id }, { replace: true });
  if (!song) return <WhichSong songs={songs} choose={choose} />;
  return <OneSong key={song.id} song={song} songs={songs} choose={choose} />;
};

const dayText = (days: number): string =>
  days <= 0 ? (days <= -1 ? `due since ${Math.round(-days)} days` : 'due now') : `due in ${Math.ceil(days)} days`;

const WhichSong = ({ songs, choose }: { songs: readonly Song[]; choose: (id: Song['id']) => void }) => {
  const { rigId } = useRig();
  const [now] = useState(() => new Date());
  const due = dueFirst(
    songs.map((s) => ({ song: s.id, title: s.title })),
    readPractised(rigId),
    now,
  );
  return (
    <main className="stage drill">
      <DrillTop title="Drill" />
      <section className="drill-scroll">
        <p>Which song do your feet want to learn? What is due longest stands first.</p>
        <ol className="drill-songs">
          {due.map(({ song, title, dueInDays }) => (
            <li key={song}>
              <button type="button" onClick={() => choose(song)}>
                <strong>{title}</strong> <span className="stage-facts">{dayText(dueInDays)}</span>
              </button>
            </li>
          ))}
        </ol>
        {songs.length === 0 && <p>No song yet.</p>}
      </section>
    </main>
  );
};

export const DrillTop = ({ title }: { title: string }) => (
  <header className="stage-top">
    <Link to="../set?show=dance" aria-label="Leave the drill">
      ×
    </Link>
    <span>{title}</span>
  </header>
);

interface OneSongProps {
  readonly song: Song;
  readonly songs: readonly Song[];
  readonly choose: (id: Song['id']) => void;
}

const OneSong = ({ song, songs, choose }: OneSongProps) => {
  const drill = useAsked<Dance | 'none' | undefined>(['drill', song.id], (worker) => worker.night.drill(song.id));
  if (drill === undefined)
    return (
      <main className="stage drill">
        <p className="stage-wait">Looking at the song …</p>
      </main>
    );
  if (drill === 'none')
    return (
      <main className="stage drill">
        <DrillTop title={song.title} />
        <p className="stage-wait">
          Nothing in “{song.title}” is hit at a known time. Type bars into its cues, and the tempo of the song.{' '}
          <Link to={`../set?show=songs&song=${song.id}`}>Open the song</Link>
        </p>
      </main>
    );
  return <Danced song={song} whole={drill} songs={songs} choose={choose} />;
};

const SPEEDS = [0.5, 0.75, 0.9, 1] as const;

/** Before a round, in it, and behind it. */
const Danced = ({ song, whole, songs, choose }: OneSongProps & { whole: Dance }) => {
  const { rigId } = useRig();
  useAwake();
  const [practised, setPractised] = useState(() => readPractised(rigId));
  const known = practised.find((p) => p.song === song.id);
  const [speed, setSpeed] = useState<number>(known && known.level > 0 ? 1 : SPEEDS[1]);
  const [first, setFirst] = useState(0);
  const [isOn, setOn] = useState(false);
  const [score, setScore] = useState<DrillScore & { readonly isWhole: boolean }>();
  const drill = useMemo(() => atSpeed(fromCue(whole, first), speed), [whole, first, speed]);
  const over = (hits: readonly DrillHit[], until: number): void => {
    const scored = scoreDrill(drill, hits, Math.min(until, endOf(drill)));
    const isWhole = first === 0 && speed === 1 && until >= endOf(drill);
    setScore({ ...scored, isWhole });
    setOn(false);
    if (isWhole || scored.onTime < scored.wanted)
      setPractised(keepPractised(rigId, practisedAfter(known, song.id, scored, new Date())));
  };
  if (isOn) return <Round drill={drill} over={over} />;
  return (
    <main className="stage drill">
      <DrillTop title={`${song.title}, ${Math.round(whole.bpm)} bpm`} />
      <section className="drill-scroll">
        {score && <Outcome drill={drill} score={score} isWhole={score.isWhole} />}
        <Choice label="How fast" value={speed} choose={setSpeed} of={SPEEDS.map((s) => [s, `${s * 100} %`] as const)} />
        <Choice
          label="From"
          value={first}
          choose={setFirst}
          of={whole.cues.slice(0, -1).map((c, i) => [i, i === 0 ? 'the beginning' : c.name] as const)}
        />
        {whole.left.length > 0 && (
          <p className="stage-facts">Not drilled, as nobody said when they come: {whole.left.join(', ')}.</p>
        )}
        <button type="button" className="drill-go" onClick={() => setOn(true)}>
          {score ? 'Once more' : 'Start'}
        </button>
        <NextOne songs={songs} song={song} choose={choose} practised={practised} />
      </section>
    </main>
  );
};

const NextOne = ({
  songs,
  song,
  choose,
  practised,
}: OneSongProps & { practised: ReturnType<typeof readPractised> }) => {
  const [now] = useState(() => new Date());
  const next = dueFirst(
    songs.filter((s) => s.id !== song.id).map((s) => ({ song: s.id, title: s.title })),
    practised,
    now,
  )[0];
  if (!next) return null;
  return (
    <p>
      Next to practise:{' '}
      <button type="button" onClick={() => choose(next.song)}>
        {next.title}
      </button>{' '}
      <span className="stage-facts">{dayText(next.dueInDays)}</span>
    </p>
  );
};

interface ChoiceProps<T> {
  readonly label: string;
  readonly value: T;
  readonly choose: (value: T) => void;
  readonly of: readonly (readonly [value: T, text: string])[];
}

const Choice = <T extends number>({ label, value, choose, of }: ChoiceProps<T>) => (
  <fieldset className="drill-choice">
    <legend>{label}</legend>
    {of.map(([one, text]) => (
      <button key={one} type="button" aria-pressed={one === value} onClick={() => choose(one)}>
        {text}
      </button>
    ))}
  </fieldset>
);
