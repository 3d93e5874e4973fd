import './stage.css';
import { useHotkeys } from '@mantine/hooks';
import type { Stage as Night, StageCue, StageSong } from '@yunta/core/derive/views/stage';
import { all } from '@yunta/core/rig/rig';
import type { SetMark } from '@yunta/core/rig/show';
import { minutesText } from '@yunta/core/units/minutes';
import { useCallback, useEffect, useMemo, useRef, useState, type CSSProperties, type ReactNode } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { StoreState } from '../../session/store.js';
import { RigProvider, useAsked, useRig } from '../../shared/rig-context.js';
import { wordsLines } from '@yunta/core/derive/views/song-words';
import { WordsWithCues } from '../../shared/words-with-cues.js';
import { MidiTools, StopTool, useSending, type Stopping } from './tools.js';
import { ShareTool, useSharing } from './sharing.js';
import { nextPlace, otherSong, placeBefore, placeIn, type Place } from './place.js';
import { useAwake } from './use-awake.js';

const WAITING: Readonly<Partial<Record<StoreState['status'], string>>> = {
  missing: 'This rig is not here. It may have been removed.',
  away: 'The server does not answer, and this browser has not kept this rig. It tries again by itself.',
};

/** On stage: which song this is, what sounds now, what comes next and what to hit. Nothing else, and no server needed. */
export const Stage = () => {
  const { rigId = '' } = useParams();
  return (
    <RigProvider
      key={rigId}
      rigId={rigId}
      fallback={(state) => (
        <main className="stage">
          <p className="stage-wait">
            {WAITING[state.status] ?? 'Opening …'} <Link to="/">All rigs</Link>
          </p>
        </main>
      )}
    >
      <Playing />
    </RigProvider>
  );
};

const Playing = () => {
  const { rig, rigId } = useRig();
  const [params] = useSearchParams();
  const lists = all(rig, 'setList');
  const list = lists.find((l) => l.id === params.get('list')) ?? lists[0];
  const [isStopped, stop] = useState(false);
  const whole = useAsked(['stage', list?.id ?? ''], (worker) => worker.night.stage(list?.id));
  const stopped = useAsked(
    ['stage without lists', list?.id ?? ''],
    (worker) => worker.night.stage(list?.id, true),
    isStopped,
  );
  const night = isStopped ? (stopped ?? whole) : whole;
  if (!night || night.songs.length === 0)
    return (
      <main className="stage">
        <p className="stage-wait">
          {night ? 'No song is in this set.' : 'Looking at the set …'} <Link to="../set">Back to the set</Link>
        </p>
      </main>
    );
  return (
    <OnStage
      key={list?.id ?? ''}
      night={night}
      remembered={`yunta-stage ${rigId} ${list?.id ?? ''}`}
      stopping={whole?.isListed ? { isStopped, stop } : undefined}
    />
  );
};

/** Where one was stays in the browser, so that a page loaded again goes on there. */
const usePlace = (night: Night, remembered: string) => {
  const [place, set] = useState<Place>(() => {
    const [song, cue] = (sessionStorage.getItem(remembered) ?? '0 0').split(' ').map(Number);
    return { song: song ?? 0, cue: cue ?? 0 };
  });
  useEffect(() => sessionStorage.setItem(remembered, `${place.song} ${place.cue}`), [remembered, place]);
  const here = placeIn(night, place);
  return [useMemo(() => ({ song: here.song, cue: here.cue }), [here.song, here.cue]), set] as const;
};

const COMES: Readonly<Record<SetMark, string>> = { break: 'Break, then ', encore: 'Encore: ', spare: 'Spare: ' };
const LIGHTS = { dark: 'Daylight', sun: 'Dark' } as const;
type Light = keyof typeof LIGHTS;

/** The key's own effect is kept until the handler says otherwise. */
const ITSELF = { preventDefault: false };

/** What has the focus answers to these keys itself. */
const unlessOnAButton =
  (act: () => void) =>
  (e: KeyboardEvent): void => {
    if (e.target instanceof HTMLButtonElement || e.target instanceof HTMLAnchorElement) return;
    e.preventDefault();
    act();
  };

interface OnStageProps {
  readonly night: Night;
  readonly remembered: string;
  /** Only where a computer or a song list calls sounds. */
  readonly stopping: Stopping | undefined;
}

const OnStage = ({ night, remembered, stopping }: OnStageProps) => {
  const { rig, rigId, state } = useRig();
  const [place, go] = usePlace(night, remembered);
  const sharing = useSharing(rigId, night, place, state.online);
  const [light, setLight] = useState<Light>('dark');
  const [hasWords, showWords] = useState(false);
  const [hasReserve, showReserve] = useState(false);
  useAwake();
  const on = (): void => go(nextPlace(night, place));
  const back = (): void => go(placeBefore(night, place));
  const jump = (by: -1 | 1): void => go(otherSong(night, place, by));
  useHotkeys([
    ['ArrowRight', on],
    ['PageDown', on],
    ['Space', unlessOnAButton(on), ITSELF],
    ['Enter', unlessOnAButton(on), ITSELF],
    ['ArrowLeft', back],
    ['PageUp', back],
    ['ArrowDown', () => jump(1)],
    ['ArrowUp', () => jump(-1)],
  ]);
  const song = night.songs[place.song];
  const cue = song?.cues[place.cue];
  const turn = useCallback(() => go(nextPlace(night, place)), [go, night, place]);
  const sending = useSending(cue, `${place.song} ${place.cue}`, turn);
  const next = nextPlace(night, place);
  const isLast = next.song === place.song && next.cue === place.cue;
  const nextSong = night.songs[next.song];
  if (!song) return null;
  return (
    <main className={`stage stage-${light}`}>
      <header className="stage-top">
        <Link to="../set" aria-label="Leave the stage">
          ×
        </Link>
        <span>
          {night.name}, song {place.song + 1} of {night.songs.length}
        </span>
        <Timer seconds={song.seconds} key={place.song} />
        <span className="stage-tools">
          <ShareTool sharing={sharing} />
          <MidiTools sending={sending} cue={cue} />
          {stopping && <StopTool {...stopping} />}
          {night.reserve.length > 0 && (
            <button type="button" aria-pressed={hasReserve} onClick={() => showReserve(!hasReserve)}>
              Reserve
            </button>
          )}
          {song.words && (
            <button type="button" aria-pressed={hasWords} onClick={() => showWords(!hasWords)}>
              Words
            </button>
          )}
          <button type="button" onClick={() => setLight(light === 'dark' ? 'sun' : 'dark')}>
            {LIGHTS[light]}
          </button>
        </span>
      </header>
      <div className={hasWords && song.words ? 'stage-middle has-words' : 'stage-middle'}>
        {hasReserve ? <Reserve of={night.reserve} /> : <Now song={song} cue={cue} place={place} />}
        {hasWords && song.words && <Words song={song} words={song.words} now={place.cue} />}
      </div>
      <section className="stage-next" aria-label="Next">
        {isLast ? (
          <p>The end</p>
        ) : next.song === place.song ? (
          <Coming cue={song.cues[next.cue]} />
        ) : (
          <p>
            {nextSong?.comes && <strong>{COMES[nextSong.comes]}</strong>}
            <strong>{nextSong?.title}</strong> <Facts of={nextSong} />
          </p>
        )}
      </section>
      <footer className="stage-keys">
        <button type="button" onClick={() => jump(-1)} aria-label="Song before">
          |◂
        </button>
        <button type="button" onClick={back} aria-label="Back">
          ◂
        </button>
        <button type="button" className="stage-on" onClick={on}>
          Next
        </button>
        <button type="button" onClick={() => jump(1)} aria-label="Next song">
          ▸|
        </button>
      </footer>
      <p className="stage-age">
        {rig.parts.about.size ? `Revision ${state.session?.confirmed.revision ?? 0}` : ''}
        {state.online ? ', as the server has it' : ', as this browser kept it: the server does not answer'}
      </p>
    </main>
  );
};

/** What somebody may call for, and what to hit for it, in place of the cue. */
const Reserve = ({ of }: { of: Night['reserve'] }) => (
  <section className="stage-now stage-reserve" aria-label="Reserve">
    <ul>
      {of.map((one) => (
        <li key={one.name}>
          <strong className="mono">{one.hit}</strong> {one.name}
        </li>
      ))}
    </ul>
  </section>
);

/** The words of the song; the line of the cue stays in the middle, however the page is turned. */
const Words = ({ song, words, now }: { song: StageSong; words: string; now: number }) => {
  const lines = useMemo(() => wordsLines(words, song.cues), [words, song]);
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    const middle = (): void => box.current?.querySelector('.is-now')?.scrollIntoView({ block: 'center' });
    middle();
    window.addEventListener('resize', middle);
    return () => window.removeEventListener('resize', middle);
  }, [now, lines]);
  return (
    <section className="stage-words" aria-label="Words" ref={box}>
      <WordsWithCues lines={lines} cues={song.cues} now={now} />
    </section>
  );
};

const Facts = ({ of }: { of: StageSong | undefined }) => <span className="stage-facts">{of?.facts.join(', ')}</span>;

const Now = ({ song, cue, place }: { song: StageSong; cue: StageCue | undefined; place: Place }) => (
  <section className="stage-now" aria-label="Now" aria-live="polite">
    <h1 style={longOf(song.title)}>{song.title}</h1>
    <p>
      <Facts of={song} />
    </p>
    {place.cue === 0 && song.notes && <p className="stage-notes">{song.notes}</p>}
    {cue ? (
      <>
        <p className="stage-cue" style={longOf(cue.name)}>
          {cue.name}
          <span className="stage-count">
            {place.cue + 1} / {song.cues.length}
            {cue.bar && `, bar ${cue.bar}`}
          </span>
        </p>
        <Hit cue={cue} />
        <Hands cue={cue} />
      </>
    ) : (
      <p className="stage-cue">No cue in this song</p>
    )}
  </section>
);

const LONG_NAME = 28;
/** A long name is set smaller, so that the switch and the hands keep their room. */
const longOf = (text: string): CSSProperties =>
  ({ '--long': [...text].length > LONG_NAME ? 0.62 : 1 }) as CSSProperties;
const lettersOf = (text: string): CSSProperties => ({ '--letters': Math.max(2, [...text].length) }) as CSSProperties;

/** The switch to hit, as large as it can be. */
const Hit = ({ cue }: { cue: StageCue }): ReactNode => {
  if (!cue.hit) return cue.sound ? <p className="stage-sound">{cue.sound}</p> : null;
  return (
    <p className="stage-hit">
      {cue.bank && <span className="stage-bank">{cue.bank}</span>}
      <span className="stage-slot mono" style={lettersOf(cue.hit)}>
        {cue.hit}
      </span>
      {cue.sound !== cue.name && <span className="stage-sound">{cue.sound}</span>}
    </p>
  );
};

const Hands = ({ cue }: { cue: StageCue }) => (
  <ul className="stage-hands">
    {cue.hands.map((text) => (
      <li key={text}>{text}</li>
    ))}
    {cue.rings.map((text) => (
      <li key={text} className="stage-rings">
        {text} rings on if it is held
      </li>
    ))}
  </ul>
);

const Coming = ({ cue }: { cue: StageCue | undefined }) =>
  cue ? (
    <p>
      <span>next</span> <strong>{cue.name}</strong> {cue.bank && <span className="stage-bank">{cue.bank}</span>}{' '}
      {cue.hit && <strong className="mono">{cue.hit}</strong>}{' '}
      <span className="stage-facts">{cue.hands.join(', ')}</span>
    </p>
  ) : null;

const SECOND = 1000;

/** How long this song goes on already, beside its length. */
const Timer = ({ seconds }: { seconds: number | undefined }) => {
  const [began] = useState(() => Date.now());
  const [now, tick] = useState(began);
  useEffect(() => {
    const clock = setInterval(() => tick(Date.now()), SECOND);
    return () => clearInterval(clock);
  }, []);
  return (
    <span className="mono" role="timer">
      {minutesText((now - began) / SECOND)}
      {seconds !== undefined && ` / ${minutesText(seconds)}`}
    </span>
  );
};
