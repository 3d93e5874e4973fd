import { Button, NumberInput, Select } from '@mantine/core';
import { TEMPO } from '@yunta/core/rig/limits';
import { all } from '@yunta/core/rig/rig';
import { CLEAN_PERCENT, nearestNote, noteMs, NOTE_VALUES, tappedMs, twoDelays } from '@yunta/core/units/note-values';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';

const BY_LENGTH = [...NOTE_VALUES].sort((a, b) => b.beats - a.beats);
const USUAL_BPM = 120;
const ms = (value: number): string => `${Number(value.toFixed(1))} ms`;
const within = (value: string | number): number | undefined => {
  const n = Number(value);
  return n > 0 ? n : undefined;
};

/** Tempo and delay times, there and back: note values at a tempo, what a delay is in it, what two delays make together. */
export const Times = () => {
  const { rig } = useRig();
  const songs = all(rig, 'song').filter((s) => s.bpm !== undefined);
  const [bpm, setBpm] = useState(songs[0]?.bpm ?? USUAL_BPM);
  const [delay, setDelay] = useState<number>();
  const [other, setOther] = useState<number>();
  return (
    <div className="times">
      <section className="card">
        <h2>Tempo</h2>
        <div className="sheet-tools">
          <NumberInput
            size="xs"
            w={110}
            aria-label="Tempo in beats a minute"
            suffix=" bpm"
            min={TEMPO.min}
            max={TEMPO.max}
            value={bpm}
            onChange={(v) => setBpm(within(v) ?? bpm)}
          />
          <Tap label="Tap the tempo" tapped={(between) => setBpm(Number((60_000 / between).toFixed(1)))} />
          {songs.length > 0 && (
            <Select
              size="xs"
              w={220}
              aria-label="The tempo of a song"
              placeholder="of a song"
              searchable
              data={songs.map((s) => ({ value: s.id, label: `${s.title}, ${s.bpm} bpm` }))}
              value={null}
              onChange={(id) => setBpm(songs.find((s) => s.id === id)?.bpm ?? bpm)}
            />
          )}
        </div>
        <table className="plain times-table">
          <caption className="visually-hidden">Note values at {bpm} beats a minute</caption>
          <tbody>
            {BY_LENGTH.map((note) => (
              <tr key={note.name}>
                <th scope="row">{note.name}</th>
                <td className="mono">{ms(noteMs(note.beats, bpm))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="card">
        <h2>A delay</h2>
        <div className="sheet-tools">
          <DelayTime label="Its time" value={delay} set={setDelay} />
          <Tap label="Tap along with its repeats" tapped={(between) => setDelay(Math.round(between))} />
        </div>
        {delay !== undefined && <p role="status">{delayText(delay, bpm)}</p>}
        <h2>Beside another one</h2>
        <div className="sheet-tools">
          <DelayTime label="The time of the other" value={other} set={setOther} />
        </div>
        {delay !== undefined && other !== undefined && <p role="status">{patternText(delay, other)}</p>}
      </section>
    </div>
  );
};

const delayText = (delay: number, bpm: number): string => {
  const { note, offMs, driftMs } = nearestNote(delay, bpm);
  if (Math.abs(offMs) < 0.05) return `${ms(delay)} at ${bpm} is a ${note.name}.`;
  return `${ms(delay)} at ${bpm} is nearest to a ${note.name}, ${ms(Math.abs(offMs))} too ${offMs > 0 ? 'long' : 'short'}: after a bar of four its repeats are ${ms(Math.abs(driftMs))} ${offMs > 0 ? 'behind' : 'ahead'}.`;
};

const patternText = (one: number, other: number): string => {
  const { first, second, bpm, offPercent } = twoDelays(one, other);
  const off = Math.abs(offPercent);
  const notes = `${first.name} and ${second.name} at ${Number(bpm.toFixed(1))}`;
  if (off > CLEAN_PERCENT) return `No clean pattern. The nearest is ${notes}: the other is off by ${off.toFixed(1)} %.`;
  return `${ms(one)} and ${ms(other)}: ${notes}${off < 0.05 ? '.' : `, the other off by ${off.toFixed(1)} %.`}`;
};

const DelayTime = ({
  label,
  value,
  set,
}: {
  label: string;
  value: number | undefined;
  set: (ms: number | undefined) => void;
}) => (
  <NumberInput
    size="xs"
    w={130}
    aria-label={label}
    placeholder="375 ms"
    suffix=" ms"
    min={1}
    max={10_000}
    value={value ?? ''}
    onChange={(v) => set(within(v))}
  />
);

const MOST_TAPS = 16;

const Tap = ({ label, tapped }: { label: string; tapped: (between: number) => void }) => {
  const [taps, setTaps] = useState<readonly number[]>([]);
  const tap = (): void => {
    const next = [...taps.slice(1 - MOST_TAPS), performance.now()];
    setTaps(next);
    const between = tappedMs(next);
    if (between !== undefined) tapped(between);
  };
  return (
    <Button
      size="xs"
      variant="default"
      onPointerDown={tap}
      onKeyDown={(e) => (e.key === ' ' || e.key === 'Enter') && !e.repeat && tap()}
    >
      {label}
    </Button>
  );
};
