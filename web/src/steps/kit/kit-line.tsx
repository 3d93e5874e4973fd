import './kit-line.css';
import { Button, Checkbox, Textarea } from '@mantine/core';
import { ownName, understand, type Asked, type Heard, type Taken } from '@yunta/core/catalogue/kit-line/kit-line';
import type { Generic } from '@yunta/core/catalogue/parts';
import { apply } from '@yunta/core/change/apply';
import { together, type Edit } from '@yunta/core/change/edit';
import { givesOut, takesIn } from '@yunta/core/edits/cables';
import { addDevice, addMade } from '@yunta/core/edits/devices';
import { inARow } from '@yunta/core/edits/in-a-row';
import { theFirst } from '@yunta/core/known/the';
import type { Id } from '@yunta/core/rig/ids';
import type { Rig } from '@yunta/core/rig/rig';
import type { Item } from '@yunta/core/signal/drawing/picture';
import { useMemo, useState } from 'react';
import { RunDrawing } from '../../picture/run.js';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';
import { doesText } from './does-text.js';
import { Shelves } from './shelves.js';

/** What was asked about, and which of the candidates the person chose, by the words that were said. */
type Choices = Readonly<Record<string, string>>;

const chosenOf = (asked: Asked, choices: Choices): Generic | undefined =>
  asked.candidates.find((c) => c.key === choices[asked.said]);

/** What is going to be added: what was clear, and what was chosen. */
const settled = (heard: readonly Heard[], choices: Choices): readonly Taken[] =>
  heard.flatMap((h): readonly Taken[] => {
    if (h.is === 'taken') return [h];
    const box = h.is === 'asked' ? chosenOf(h, choices) : undefined;
    return box && h.is === 'asked'
      ? [{ is: 'taken', said: h.said, box, count: h.count, name: h.name, ...(h.channel ? { channel: h.channel } : {}) }]
      : [];
  });

/** All boxes at once, and the cables between them where the order of the signal was said. */
const addAll = (rig: Rig, boxes: readonly Taken[], row: Id<'hookup'> | undefined): Edit => {
  const codes: string[] = [];
  const ids: Id<'device'>[] = [];
  const made = boxes.flatMap((one) =>
    Array.from({ length: one.count }, () => {
      const name = ownName(one);
      const id = newPartId('device');
      const channel = one.box.box.midi ? one.channel : undefined;
      const added = addDevice(
        rig,
        one.box.key,
        id,
        { ...(name ? { name } : {}), ...(channel ? { channel } : {}) },
        codes,
      );
      codes.push(added.put[0].code);
      ids.push(id);
      return added;
    }),
  );
  const adds = together(...made);
  const after = row ? apply(rig, adds) : undefined;
  return row && after?.ok
    ? together(
        adds,
        inARow(after.value.rig, row, ids, () => newPartId('cable')),
      )
    : adds;
};

/** The line in which a person says what they have, and what it was taken for, before anything is added. */
export const KitLine = () => {
  const { rig, hookup, edit } = useRig();
  const [line, setLine] = useState('');
  const [choices, choose] = useState<Choices>({});
  const [wires, setWires] = useState(true);
  const [browsing, browse] = useState(false);
  const { heard, isChain } = useMemo(() => understand(line), [line]);
  const boxes = settled(heard, choices);
  const count = boxes.reduce((n, b) => n + b.count, 0);
  const add = () => {
    if (count === 0) return;
    const row = isChain && wires ? hookup?.id : undefined;
    const label =
      count === 1 ? `Add ${theFirst(boxes).box.says[0]}` : `Add ${count} boxes${row ? ', wired in a row' : ''}`;
    if (edit(addAll(rig, boxes, row), label).length > 0) return;
    // What was not added stays in the line.
    setLine(
      heard
        .filter((h) => !boxes.some((b) => b.said === h.said))
        .map((h) => h.said)
        .join(', '),
    );
    choose({});
  };
  return (
    <div className="card">
      <label htmlFor="kit-line" className="soft">
        Say what you have, as you would say it. Enter adds it; a pasted list works too.
      </label>
      <div className="kit-line">
        <Textarea
          id="kit-line"
          size="md"
          autosize
          minRows={1}
          maxRows={8}
          value={line}
          onChange={(e) => setLine(e.currentTarget.value)}
          autoFocus
          onKeyDown={(e) => {
            if (e.key === 'Enter' && !e.shiftKey) {
              e.preventDefault();
              add();
            }
          }}
          placeholder="guitar into wah into 2 drives, then stereo delay midi ch 3, then a combo"
        />
        <Button size="md" disabled={count === 0} onClick={add}>
          {count === 0 ? 'Add boxes' : count === 1 ? 'Add 1 box' : `Add ${count} boxes`}
        </Button>
        <Button size="md" variant="default" onClick={() => browse(true)}>
          Shelves
        </Button>
      </div>
      <Shelves
        opened={browsing}
        close={() => browse(false)}
        add={(g) => edit(addDevice(rig, g.key, newPartId('device')), `Add ${theFirst(g.says)}`)}
        addOwn={(box) => edit(addMade(rig, box, newPartId('device')), `Add ${box.name}`)}
      />
      {isChain && count > 1 && (
        <Checkbox
          className="kit-line-wires"
          label="Wire them in this order"
          checked={wires}
          onChange={(e) => setWires(e.currentTarget.checked)}
        />
      )}
      {heard.length > 0 && (
        <ul className="pieces" aria-label="What will be added">
          {heard.map((h, i) => (
            <Piece
              key={`${i} ${h.said}`}
              heard={h}
              leads={isChain && wires && i < heard.length - 1}
              chosen={h.is === 'asked' ? chosenOf(h, choices) : undefined}
              choose={(key) => choose({ ...choices, [h.said]: key })}
            />
          ))}
        </ul>
      )}
    </div>
  );
};

interface PieceProps {
  readonly heard: Heard;
  readonly leads: boolean;
  readonly chosen: Generic | undefined;
  readonly choose: (key: string) => void;
}

const Piece = ({ heard, leads, chosen, choose }: PieceProps) => {
  if (heard.is === 'refused')
    return (
      <li className="set-aside">
        <strong>“{heard.said}”</strong>
        <div>{heard.why}</div>
      </li>
    );
  if (heard.is === 'asked') return <Question asked={heard} chosen={chosen} choose={choose} />;
  const { box } = heard.box;
  const own = ownName(heard);
  return (
    <>
      <li>
        <strong>
          {heard.count > 1 ? `${heard.count} × ` : ''}
          {own ?? box.name}
        </strong>
        <div className="soft">
          {[own && box.name, box.code, heard.channel ? `MIDI channel ${heard.channel}` : undefined]
            .filter(Boolean)
            .join(', ')}
        </div>
      </li>
      {leads && (
        <li className="leads" aria-hidden>
          →
        </li>
      )}
    </>
  );
};

const DRAWN: Item = { is: 'box', device: 'device:candidate', stages: [] };

/** How many ways there are into a box and out of it. */
const jacksText = ({ jacks }: Generic['box']): string => {
  const audio = jacks.filter((j) => j.kind === 'audio');
  const [ins, outs] = [audio.filter(takesIn).length, audio.filter(givesOut).length];
  return [`${ins} in`, `${outs} out`, jacks.some((j) => j.kind === 'midi') && 'MIDI'].filter(Boolean).join(', ');
};

/** Something that may be several boxes: each is drawn, and one can be chosen. */
const Question = ({ asked, chosen, choose }: { asked: Asked } & Pick<PieceProps, 'chosen' | 'choose'>) => (
  <li className={chosen ? 'question answered' : 'question'}>
    <strong>
      {asked.count > 1 ? `${asked.count} × ` : ''}“{asked.said}”
    </strong>
    <div>{chosen ? `It will be added as ${chosen.box.name}.` : `${asked.why} Which one?`}</div>
    <div className="candidates" role="group" aria-label={`What “${asked.said}” is`}>
      {asked.candidates.map((c) => (
        <button key={c.key} type="button" aria-pressed={c === chosen} onClick={() => choose(c.key)}>
          <span className="candidate-drawn" aria-hidden>
            <RunDrawing items={[DRAWN]} label="" said={() => ({ code: c.box.code, name: '' })} />
          </span>
          <strong>{c.box.name}</strong>
          <span className="soft">{doesText(c.box)}</span>
          <span className="soft">{jacksText(c.box)}</span>
        </button>
      ))}
    </div>
  </li>
);
