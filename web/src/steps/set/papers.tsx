import './papers.css';
import { SegmentedControl } from '@mantine/core';
import type { FloorCard, MemoryTable } from '@yunta/core/derive/views/stage-papers';
import type { StageSong } from '@yunta/core/derive/views/stage';
import { wordsLines } from '@yunta/core/derive/views/song-words';
import type { Telling, ToldBox } from '@yunta/core/derive/views/telling';
import type { SetList } from '@yunta/core/rig/show';
import type { ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { useAsked } from '../../shared/rig-context.js';
import { WordsWithCues } from '../../shared/words-with-cues.js';

const PAPERS = [
  { value: 'floor', label: 'Floor card' },
  { value: 'labels', label: 'Switch labels' },
  { value: 'memory', label: 'Song to memory' },
  { value: 'words', label: 'Song words' },
  { value: 'telling', label: 'Telling the rig' },
] as const;
type Which = (typeof PAPERS)[number]['value'];

/** What is printed for the stage besides the set list: seen here as it comes out. */
export const PapersRoom = ({ list }: { list: SetList | undefined }) => {
  const [params, setParams] = useSearchParams();
  const which = PAPERS.find((p) => p.value === params.get('paper'))?.value ?? 'floor';
  const choose = (paper: string): void => setParams({ ...Object.fromEntries(params), paper }, { replace: true });
  return (
    <>
      <div className="sheet-tools no-print">
        <SegmentedControl aria-label="Which paper" size="xs" value={which} onChange={choose} data={[...PAPERS]} />
        <PrintButton what="this paper" />
      </div>
      <Which which={which} list={list} />
    </>
  );
};

const Which = ({ which, list }: { which: Which; list: SetList | undefined }) => {
  const id = list?.id;
  const cards = useAsked(['floor cards', id ?? ''], (worker) => worker.night.floorCards(id));
  const memory = useAsked(['memory table', id ?? ''], (worker) => worker.night.memoryTable(id));
  const night = useAsked(['stage', id ?? ''], (worker) => worker.night.stage(id));
  const told = useAsked(['telling'], (worker) => worker.night.telling());
  const name = list?.name ?? 'All songs';
  if (which === 'floor') return <Sheet title={`Floor card, ${name}`}>{cards && <FloorCards cards={cards} />}</Sheet>;
  if (which === 'labels') return <Sheet title="Switch labels">{cards && <Labels cards={cards} />}</Sheet>;
  if (which === 'memory')
    return (
      <Sheet title={`Song to memory, ${name}`} wide>
        {memory && <Memories table={memory} />}
      </Sheet>
    );
  if (which === 'words')
    return <Sheet title={`Song words, ${name}`}>{night && <AllWords songs={night.songs} />}</Sheet>;
  return <Sheet title="The rig, told">{told && <Told told={told} />}</Sheet>;
};

/** Seen in the room as it is printed. */
const Sheet = ({ title, wide, children }: { title: string; wide?: true; children: ReactNode }) => {
  const isPrinting = usePrinting();
  return (
    <>
      <section className="card paper-seen no-print" aria-label={title}>
        {children ?? <p className="soft">Writing it …</p>}
      </section>
      {isPrinting && (
        <Paper title={title} {...(wide ? { wide } : {})}>
          {children}
        </Paper>
      )}
    </>
  );
};

const FloorCards = ({ cards }: { cards: readonly FloorCard[] }) =>
  cards.length === 0 ? (
    <p>No foot calls a sound here, so there is nothing to lay on the floor.</p>
  ) : (
    cards.map((card) => (
      <div key={card.device} className="floor-card">
        <h2>
          {card.name} {card.code}
        </h2>
        {card.banks.map((bank) => (
          <div key={bank.name} className="floor-bank">
            {card.banks.length > 1 && <h3>{bank.name}</h3>}
            <ol>
              {bank.slots.map((slot) => (
                <li key={slot.place}>
                  <strong className="mono">{slot.place}</strong>
                  <span className="floor-sound">{slot.sound || '–'}</span>
                  <small>{slot.songs.join(', ')}</small>
                </li>
              ))}
            </ol>
          </div>
        ))}
        {card.moves.length > 0 && (
          <ul>
            {card.moves.map((move) => (
              <li key={move.name}>
                <strong className="mono">{move.switch}</strong> {move.name}, {move.how}
              </li>
            ))}
          </ul>
        )}
      </div>
    ))
  );

/** Strips to cut along their frame and tape beneath the switches. */
const Labels = ({ cards }: { cards: readonly FloorCard[] }) => (
  <>
    <p className="soft">Cut along the lines. Each strip is as wide as a hand; tape it beneath its switches.</p>
    {cards.flatMap((card) =>
      card.banks.map((bank) => (
        <div key={`${card.device} ${bank.name}`} className="label-strip">
          <small>
            {card.code}, {bank.name}
          </small>
          <ol>
            {bank.slots.map((slot) => (
              <li key={slot.place}>
                <strong className="mono">{slot.place}</strong>
                <span>{slot.sound}</span>
              </li>
            ))}
          </ol>
        </div>
      )),
    )}
    {cards.map(
      (card) =>
        card.moves.length > 0 && (
          <div key={card.device} className="label-strip">
            <small>{card.code}, moves</small>
            <ol>
              {card.moves.map((move) => (
                <li key={move.name}>
                  <strong className="mono">{move.switch}</strong>
                  <span>{move.name}</span>
                </li>
              ))}
            </ol>
          </div>
        ),
    )}
  </>
);

const Memories = ({ table }: { table: MemoryTable }) =>
  table.rows.length === 0 ? (
    <p>No cue calls a sound yet.</p>
  ) : (
    <div className="sheet-wrap">
      <table className="plain memory-table">
        <thead>
          <tr>
            {['Song', 'cue', 'sound', 'called by'].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
            {table.columns.map((c) => (
              <th key={c.device} scope="col" title={c.name}>
                {c.code}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, i) => (
            <tr key={i}>
              <th scope="row">{row.song === table.rows[i - 1]?.song ? '' : row.song}</th>
              <td>{row.cue}</td>
              <td>{row.sound}</td>
              <td className="mono">{row.hit}</td>
              {row.loads.map((load, k) => (
                <td key={table.columns[k]?.device} className="mono">
                  {load}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );

/** The words of every song that has some, a page each, with its cues in the margin. */
const AllWords = ({ songs }: { songs: readonly StageSong[] }) => {
  const told = songs.filter((s) => s.words);
  if (told.length === 0) return <p>No song has its words yet: paste them in the page of a song.</p>;
  return told.map((song) => (
    <section key={song.title} className="words-page">
      <h2>
        {song.title} {song.facts.length > 0 && <small>{song.facts.join(', ')}</small>}
      </h2>
      <WordsWithCues lines={wordsLines(song.words ?? '', song.cues)} cues={song.cues} />
    </section>
  ));
};

const Box = ({ box }: { box: ToldBox }) => (
  <li>
    <strong>
      <span className="mono">{box.code}</span> {box.name}
    </strong>
    {box.does && `, ${box.does}`}
    {box.after.length > 0 && <>; after {box.after.join(', ')}</>}. {box.heard}{' '}
    {box.why.map((why) => (
      <q key={why}>{why}</q>
    ))}
  </li>
);

const Told = ({ told }: { told: Telling }) => (
  <div className="telling">
    {told.opening.map((text) => (
      <p key={text}>{text}</p>
    ))}
    {told.notes && <blockquote>{told.notes}</blockquote>}
    <h2>From the strings to the outputs</h2>
    <ol>
      {told.boxes.map((box) => (
        <Box key={box.device} box={box} />
      ))}
    </ol>
    {told.beside.length > 0 && (
      <>
        <h2>Beside the signal</h2>
        <ul>
          {told.beside.map((box) => (
            <Box key={box.device} box={box} />
          ))}
        </ul>
      </>
    )}
    {told.ends.length > 0 && (
      <>
        <h2>Into the house</h2>
        <ul>
          {told.ends.map((end) => (
            <li key={end}>{end}</li>
          ))}
        </ul>
      </>
    )}
    {told.sounds.length > 0 && (
      <>
        <h2>Its sounds</h2>
        <ul>
          {told.sounds.map((sound) => (
            <li key={sound.name}>
              <strong>{sound.name}</strong>, {sound.calledBy}.{' '}
              {sound.why.map((why) => (
                <q key={why}>{why}</q>
              ))}
            </li>
          ))}
        </ul>
      </>
    )}
  </div>
);
