import { Button, Select } from '@mantine/core';
import type { BenchView, WireLine } from '@yunta/core/derive/views/bench-view';
import { useEffect, useRef, useState } from 'react';
import { saveFile } from '../../shared/save-file.js';
import { useRig } from '../../shared/rig-context.js';

const KINDS: readonly { readonly value: string; readonly label: string; readonly has: (l: WireLine) => boolean }[] = [
  { value: '', label: 'Everything', has: () => true },
  { value: 'nobody', label: 'What goes wrong', has: (l) => l.kind === 'nobody' },
  { value: 'message', label: 'Messages', has: (l) => l.bytes !== '' },
  { value: 'contact', label: 'Contacts', has: (l) => l.kind === 'contact' },
];

/** Every byte with its time, its source, what it says and who reacts; narrowed to what one is looking for. */
export const Monitor = ({ bench }: { bench: BenchView }) => {
  const { ask } = useRig();
  const [only, setOnly] = useState('');
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => {
    end.current?.scrollTo({ top: end.current.scrollHeight });
  }, [bench, only]);
  const kind = KINDS.find((k) => k.value === only);
  const lines = bench.wire.filter(kind ? kind.has : (l) => l.boxes.includes(only));
  const codes = [...new Set(bench.wire.flatMap((l) => l.boxes))].sort();
  return (
    <section className="card" style={{ padding: '12px 8px' }}>
      <h2 style={{ padding: '0 10px' }}>
        On the wire{' '}
        <span className="soft" style={{ fontWeight: 400, fontSize: 13 }}>
          31,250 baud, 320 µs a byte
        </span>
      </h2>
      <div className="wire-tools">
        <Select
          size="xs"
          w={170}
          aria-label="What the monitor shows"
          allowDeselect={false}
          value={only}
          onChange={(v) => setOnly(v ?? '')}
          data={[
            { group: 'Show', items: KINDS.map(({ value, label }) => ({ value, label })) },
            ...(codes.length
              ? [
                  {
                    group: 'Only with',
                    items: [...new Set([...codes, ...(kind ? [] : [only])])].map((c) => ({ value: c, label: c })),
                  },
                ]
              : []),
          ]}
        />
        <Button
          variant="default"
          size="compact-sm"
          onClick={() => void ask.bench.monitor().then((m) => saveFile('bench.txt', m.text, 'text/plain'))}
        >
          Save as text
        </Button>
        <Button
          variant="default"
          size="compact-sm"
          onClick={() => void ask.bench.monitor().then((m) => saveFile('bench.mid', m.midi, 'audio/midi'))}
        >
          as a MIDI file
        </Button>
      </div>
      <div className="wire-log" ref={end} tabIndex={0} role="log" aria-label="Bytes on the wire">
        <table className="plain">
          <thead>
            <tr>
              <th>time, s</th>
              <th>bytes</th>
              <th>reads</th>
              <th>who reacts</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l, i) => (
              <tr key={i} className={l.kind}>
                <td className="mono">{l.at}</td>
                <td className="mono">{l.bytes}</td>
                <td>{l.reads}</td>
                <td className={l.kind === 'nobody' ? 'broken' : ''}>{l.who}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {lines.length === 0 && (
          <p className="soft" style={{ padding: '0 10px' }}>
            {bench.wire.length ? 'Nothing of this kind so far.' : 'Quiet. Stomp on something.'}
          </p>
        )}
      </div>
    </section>
  );
};
