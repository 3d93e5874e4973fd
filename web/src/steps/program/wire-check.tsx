import { someOf } from '@yunta/core/known/some-of';
import { Button, Select, Textarea } from '@mantine/core';
import type { WireAnswer } from '../../worker/asking.js';
import type { Edit } from '@yunta/core/change/edit';
import { LARGEST_CAPTURE } from '@yunta/core/formats/capture';
import type { Id } from '@yunta/core/rig/ids';
import { rigName } from '@yunta/core/rig/rig';
import { proxy } from 'comlink';
import { useState } from 'react';
import { fileName, saveFile } from '../../shared/save-file.js';
import { useAsked, useRig } from '../../shared/rig-context.js';

const MOST_ROWS = 400;

interface Sender {
  readonly device: Id<'device'>;
  readonly name: string;
}

/**
 * What a controller really sends beside what it should send. The rig is left alone, unless somebody writes down what
 * came.
 */
export const WireCheckRoom = () => {
  const controllers = useAsked(['controllers'], (worker) => worker.answers.controllers());
  const [chosen, choose] = useState<string>();
  const [capture, setCapture] = useState<{ readonly bytes: Uint8Array; readonly number: number }>();
  const controller = controllers?.find((c) => c.device === chosen) ?? controllers?.[0];
  if (!controllers) return <p className="soft">Looking who sends what …</p>;
  if (!controller)
    return (
      <div className="card wire-nobody">
        <p className="soft">No controller of this hook-up sends MIDI. There is nothing to compare.</p>
      </div>
    );
  const compare = (bytes: Uint8Array) => setCapture((before) => ({ bytes, number: (before?.number ?? 0) + 1 }));
  return (
    <div className="wire-check">
      <Capture controllers={controllers} controller={controller} choose={choose} compare={compare} />
      {capture && <Answer controller={controller} {...capture} />}
    </div>
  );
};

interface CaptureProps {
  readonly controllers: readonly Sender[];
  readonly controller: Sender;
  readonly choose: (device: string) => void;
  readonly compare: (bytes: Uint8Array) => void;
}

/** Where a capture comes from: a file, what the browser hears, or lines that are typed. */
const Capture = ({ controllers, controller, choose, compare }: CaptureProps) => {
  const [text, setText] = useState('');
  const [listening, setListening] = useState('');
  const [tooLarge, setTooLarge] = useState('');
  const open = async (file: File | undefined) => {
    if (!file) return;
    const isTooLarge = file.size > LARGEST_CAPTURE;
    setTooLarge(isTooLarge ? tooLargeText(file) : '');
    if (!isTooLarge) compare(new Uint8Array(await file.arrayBuffer()));
  };
  return (
    <section className="card">
      <p>
        Record what comes out of the controller while you stomp its sounds once each, a second apart. Then give the
        capture here: a MIDI file, or the lines of a monitor with bytes in hex, up to {LARGEST_CAPTURE / 1_000_000} MB.
      </p>
      <div className="capture-from">
        {controllers.length > 1 && (
          <Select
            label="Controller"
            size="xs"
            w={240}
            allowDeselect={false}
            data={controllers.map((c) => ({ value: c.device, label: c.name }))}
            value={controller.device}
            onChange={(v) => v && choose(v)}
          />
        )}
        <Button component="label" size="xs" variant="default">
          Open a capture
          <input
            type="file"
            accept=".mid,.midi,.txt,.log,.csv,text/plain,audio/midi"
            className="visually-hidden"
            onChange={(e) => {
              void open(e.currentTarget.files?.[0]);
              e.currentTarget.value = '';
            }}
          />
        </Button>
        {'requestMIDIAccess' in navigator && (
          <Button size="xs" variant="default" onClick={() => void listen(setText).then(setListening)}>
            Listen live
          </Button>
        )}
        <SaveExpected controller={controller} />
      </div>
      {tooLarge && (
        <p role="alert" className="broken">
          {tooLarge}
        </p>
      )}
      {listening && (
        <p role="status" className="soft">
          {listening}
        </p>
      )}
      <Textarea
        aria-label="Bytes in hex, a message a line"
        placeholder={'0.000  C2 00\n0.001  C3 03'}
        autosize
        minRows={3}
        maxRows={10}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        spellCheck={false}
        styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)', fontSize: 13 } }}
      />
      <Button mt={8} size="xs" disabled={!text.trim()} onClick={() => compare(new TextEncoder().encode(text))}>
        Compare
      </Button>
    </section>
  );
};

const tooLargeText = ({ name, size }: File): string =>
  `${name} has ${Math.ceil(size / 1_000_000)} MB; captures of up to ${LARGEST_CAPTURE / 1_000_000} MB are read. Capture one song at a time.`;

const hexOf = (bytes: Uint8Array): string =>
  [...bytes].map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');

/** Writes down what every MIDI input of the browser brings, a message a line. @returns what it listens to, in words */
const listen = async (write: (text: string) => void): Promise<string> => {
  try {
    const { inputs } = await navigator.requestMIDIAccess();
    const heard: string[] = [];
    const began = performance.now();
    for (const input of inputs.values()) {
      input.onmidimessage = ({ data }) => {
        if (!data) return;
        heard.push(`${((performance.now() - began) / 1000).toFixed(6)}  ${hexOf(data)}`);
        write(heard.join('\n'));
      };
    }
    if (inputs.size === 0)
      return 'The browser knows no MIDI input. Plug an interface in and try again, or use a capture.';
    return `Listening to ${inputs.size} ${inputs.size === 1 ? 'input' : 'inputs'}. Stomp each sound once.`;
  } catch {
    return 'The browser does not let Yunta listen. A capture from a monitor does as well.';
  }
};

const SaveExpected = ({ controller }: { controller: Sender }) => {
  const { ask, rig } = useRig();
  const name = fileName(rigName(rig), controller.name);
  const saveText = async () =>
    saveFile(`${name}.txt`, (await ask.answers.shouldSend(controller.device)).text, 'text/plain');
  const saveMidi = async () =>
    saveFile(`${name}.mid`, (await ask.answers.shouldSend(controller.device)).midi, 'audio/midi');
  return (
    <>
      <Button size="xs" variant="default" onClick={() => void saveText()}>
        Save what should be sent, as text
      </Button>
      <Button size="xs" variant="default" onClick={() => void saveMidi()}>
        as a MIDI file
      </Button>
    </>
  );
};

/** Compared anew after every edit, so that it speaks of the rig as it is. */
const Answer = ({
  controller,
  bytes,
  number,
}: {
  controller: { readonly device: Id<'device'>; readonly name: string };
  bytes: Uint8Array;
  number: number;
}) => {
  const { edit } = useRig();
  const [read, setRead] = useState(0);
  const answer = useAsked<WireAnswer | undefined>(['wire', controller.device, number], async (worker) =>
    worker.asking.checkWire(controller.device, bytes, proxy(setRead)),
  );
  if (!answer)
    return (
      <p className="soft" role="status">
        {read > 0 ? `Reading the capture: ${Math.round(read * 100)} %` : 'Comparing …'}
      </p>
    );
  if ('refused' in answer)
    return (
      <div className="card alarm" role="alert">
        <strong>Nothing was compared.</strong>{' '}
        {answer.refused.map((r) => `${r.where ? `${r.where}: ` : ''}${r.wrong} ${r.would}`).join(' ')}
      </div>
    );
  return (
    <Compared
      answer={answer}
      writeDown={(made, slots) => void edit(made, `${controller.name}, ${slots.join(', ')}: written down as it came`)}
    />
  );
};

const IS = {
  right: ['✓', 'as it should be'],
  other: ['≠', 'something else'],
  missing: ['−', 'missing'],
  extra: ['+', 'too many'],
} as const;

const Compared = ({
  answer: { check, notes },
  writeDown,
}: {
  answer: Extract<WireAnswer, { check: unknown }>;
  writeDown: (made: Edit, slots: readonly string[]) => void;
}) => {
  const {
    differences,
    rows,
    right,
    notHeard,
    asItCame: { slots, edit },
  } = check;
  return (
    <>
      <section className={`card ${differences.length ? 'alarm' : ''}`} aria-live="polite">
        <h2 className={differences.length ? 'broken' : 'proved'} style={{ margin: 0 }}>
          {differences.length === 0
            ? right
              ? `All ${right} messages are as they should be.`
              : 'Nothing of what should be sent is in this capture.'
            : `${differences.length} ${differences.length === 1 ? 'thing differs' : 'things differ'}, ${right} messages are right.`}
        </h2>
        {differences.length > 0 && (
          <ol className="wire-differences">
            {differences.map((x) => (
              <li key={x.text}>{x.text}</li>
            ))}
          </ol>
        )}
        {slots.length > 0 && (
          <div style={{ display: 'flex', gap: 10, alignItems: 'center', flexWrap: 'wrap', marginTop: 10 }}>
            <Button size="xs" variant="default" onClick={() => writeDown(edit, slots)}>
              Write {slots.length === 1 ? `slot ${slots[0]}` : `${slots.length} slots`} down as it came
            </Button>
            <span className="soft">
              Then the proof tells what the box, as it stands, brings back. To change the box instead, go by the list.
            </span>
          </div>
        )}
        {notHeard.length > 0 && (
          <p className="soft" style={{ margin: '8px 0 0' }}>
            Not in this capture: {someOf(notHeard, 8, '; ')}.
          </p>
        )}
        {notes.map((n) => (
          <p key={n} className="soft" style={{ margin: '6px 0 0' }}>
            {n}
          </p>
        ))}
      </section>
      {rows.length > 0 && (
        <section className="card" style={{ padding: '12px 8px' }}>
          <table className="plain">
            <thead>
              <tr>
                <th>sound</th>
                <th>should be sent</th>
                <th>came</th>
                <th>
                  <span className="visually-hidden">how it is</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, MOST_ROWS).map((r, i) => (
                <tr key={i} className={`wire-row-${r.is}`}>
                  <td>{r.sound}</td>
                  <td className="mono">{r.meant}</td>
                  <td className="mono">{r.came}</td>
                  <td className={r.is === 'right' ? 'proved' : 'broken'}>
                    {IS[r.is][0]}
                    <span className="visually-hidden"> {IS[r.is][1]}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > MOST_ROWS && (
            <p className="soft" style={{ padding: '0 10px' }}>
              and {rows.length - MOST_ROWS} more
            </p>
          )}
        </section>
      )}
    </>
  );
};
