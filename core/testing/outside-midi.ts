import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Debian's own, which has Debian's packages. */
const PYTHON = '/usr/bin/python3';

const asked = (
  bytes: Uint8Array,
  ask: (file: string) => { readonly stdout: string; readonly status: number | null },
) => {
  const folder = mkdtempSync(join(tmpdir(), 'yunta-midi-'));
  try {
    const file = join(folder, 'set.mid');
    writeFileSync(file, bytes);
    const { stdout, status } = ask(file);
    if (status !== 0) throw new Error(`the reader refuses the file: ${stdout}`);
    return stdout;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
};

/** Rows of a Standard MIDI File as midicsv reads them: track, tick, what, the rest. */
export const midiRows = (bytes: Uint8Array): readonly (readonly string[])[] =>
  asked(bytes, (file) => spawnSync('midicsv', ['-v', file], { encoding: 'utf8' }))
    .split('\n')
    .filter(Boolean)
    .map((line) => line.split(', '));

export interface MidoEvent {
  readonly track: number;
  readonly seconds: number;
  readonly type: string;
  readonly text?: string;
  readonly channel?: number;
  readonly program?: number;
  readonly control?: number;
  readonly value?: number;
}

const READ = `
import sys, json, mido
f = mido.MidiFile(sys.argv[1], charset='utf-8')
tempi = sorted((t, m.tempo) for track in f.tracks for t, m in
               ((sum(x.time for x in track[:i + 1]), m) for i, m in enumerate(track)) if m.type == 'set_tempo')
def seconds(tick):
    at, last, tempo = 0.0, 0, 500000
    for t, us in tempi:
        if t > tick: break
        at += mido.tick2second(t - last, f.ticks_per_beat, tempo); last, tempo = t, us
    return at + mido.tick2second(tick - last, f.ticks_per_beat, tempo)
out = []
for n, track in enumerate(f.tracks):
    tick = 0
    for m in track:
        tick += m.time
        d = m.dict(); d.pop('time', None); d['track'] = n; d['seconds'] = seconds(tick)
        if 'name' in d: d['text'] = d.pop('name')
        out.append(d)
print(json.dumps({'type': f.type, 'events': out}))
`;

/** A Standard MIDI File as mido reads it, with the time of every event in seconds. */
export const midoRead = (bytes: Uint8Array): { readonly type: number; readonly events: readonly MidoEvent[] } =>
  JSON.parse(asked(bytes, (file) => spawnSync(PYTHON, ['-c', READ, file], { encoding: 'utf8' }))) as {
    type: number;
    events: MidoEvent[];
  };

/** A file that mido writes: two tempi, marks of a foreign kind, two program changes and a bank. */
export const midoWritten = (): Uint8Array => {
  const { stdout } = spawnSync(
    PYTHON,
    [
      '-c',
      `
import sys, mido
f = mido.MidiFile(type=1, ticks_per_beat=96)
t = mido.MidiTrack(); f.tracks.append(t)
t.append(mido.MetaMessage('track_name', name='Pier', time=0))
t.append(mido.MetaMessage('set_tempo', tempo=mido.bpm2tempo(90), time=0))
t.append(mido.MetaMessage('time_signature', numerator=3, denominator=4, time=0))
t.append(mido.MetaMessage('marker', text='Verse', time=0))
t.append(mido.MetaMessage('marker', text='Out', time=96 * 12))
t.append(mido.MetaMessage('set_tempo', tempo=mido.bpm2tempo(60), time=96 * 3))
w = mido.MidiTrack(); f.tracks.append(w)
w.append(mido.Message('control_change', channel=2, control=0, value=1, time=0))
w.append(mido.Message('control_change', channel=2, control=32, value=3, time=0))
w.append(mido.Message('program_change', channel=2, program=5, time=0))
w.append(mido.Message('note_on', channel=2, note=60, velocity=3, time=10))
w.append(mido.Message('control_change', channel=4, control=80, value=127, time=96 * 12 - 20))
f.save(file=sys.stdout.buffer)
`,
    ],
    { encoding: 'buffer' },
  );
  return Uint8Array.from(stdout);
};
