import './said.css';
import { Checkbox, Textarea, type TextareaProps } from '@mantine/core';
import { ownName, understand, type Asked, type Heard, type Taken } from '@yunta/core/catalogue/kit-line/kit-line';
import type { Generic } from '@yunta/core/catalogue/parts';
import { apply } from '@yunta/core/change/apply';
import { together, type Edit } from '@yunta/core/change/edit';
import { givesOut, takesIn } from '@yunta/core/edits/cables';
import { addDevice } from '@yunta/core/edits/devices';
import { inARow } from '@yunta/core/edits/in-a-row';
import type { Id } from '@yunta/core/rig/ids';
import type { Rig } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { doesText } from '../does-text.js';
import { TagSign } from '../tag-sign.js';

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
      ? [
          {
            is: 'taken',
            said: h.said,
            box,
            count: h.count,
            name: h.name,
            ...(h.channel ? { channel: h.channel } : {}),
            ...(h.isApart ? { isApart: h.isApart } : {}),
          },
        ]
      : [];
  });

/** What was said before and is meant again, as long as nobody chose another one. */
const isSame = (h: Heard, choices: Choices): h is Asked & { again: 'begins' | 'joins' } =>
  h.is === 'asked' && h.again !== undefined && chosenOf(h, choices) === undefined;

/** All boxes at once, and the cables between them where the order of the signal was said, way by way. */
const addAll = (rig: Rig, heard: readonly Heard[], choices: Choices, row: Id<'hookup'> | undefined): Edit => {
  const codes: string[] = [];
  const ways: Id<'device'>[][] = [[]];
  const all: Id<'device'>[] = [];
  const lastOf = new Map<string, Id<'device'>>();
  const made = heard.flatMap((h) => {
    if (isSame(h, choices)) {
      const before = lastOf.get(h.candidates[0]?.key ?? '');
      if (before && h.again === 'begins') ways.push([before]);
      else if (before) ways.at(-1)?.push(before);
      return [];
    }
    return settled([h], choices).flatMap((one) =>
      Array.from({ length: one.count }, () => {
        const name = ownName(one);
        const id = newPartId('device');
        const channel = one.box.box.midi ? one.channel : undefined;
        const given = { ...(name ? { name } : {}), ...(channel ? { channel } : {}) };
        const added = addDevice(rig, one.box.key, id, given, codes);
        codes.push(added.put[0].code);
        lastOf.set(one.box.key, id);
        all.push(id);
        if (!one.isApart) ways.at(-1)?.push(id);
        return added;
      }),
    );
  });
  const adds = together(...made);
  return row ? wired(rig, row, adds, ways, all) : adds;
};

/** The boxes joined in the order of each way; whoever tells others what to do is led to them last. */
const wired = (
  rig: Rig,
  row: Id<'hookup'>,
  adds: Edit,
  ways: readonly (readonly Id<'device'>[])[],
  all: readonly Id<'device'>[],
): Edit => {
  const edits = [adds];
  for (const [i, way] of ways.entries()) {
    const sofar = apply(rig, together(...edits));
    if (!sofar.ok) return adds;
    edits.push(inARow(sofar.value.rig, row, way, () => newPartId('cable'), i === ways.length - 1 ? all : []));
  }
  return together(...edits);
};

/** What a person said that they have: what it was taken for, what is still to be chosen, and the edit that adds it. */
export interface SaidBoxes {
  readonly line: string;
  readonly say: (line: string) => void;
  readonly heard: readonly Heard[];
  readonly boxes: readonly Taken[];
  readonly count: number;
  readonly isChain: boolean;
  readonly wires: boolean;
  readonly wire: (wires: boolean) => void;
  readonly choices: Choices;
  readonly choose: (said: string, key: string) => void;
  /** Adds the boxes to a rig, wired in a hook-up where an order was said. */
  readonly adding: (rig: Rig, hookup: Id<'hookup'> | undefined) => Edit;
  /** What was not added stays in the line. */
  readonly keepRest: () => void;
}

export const useSaid = (): SaidBoxes => {
  const [line, setLine] = useState('');
  const [choices, setChoices] = useState<Choices>({});
  const [wires, wire] = useState(true);
  const { heard, isChain } = useMemo(() => understand(line), [line]);
  const boxes = settled(heard, choices);
  return {
    line,
    say: setLine,
    heard,
    boxes,
    count: boxes.reduce((n, b) => n + b.count, 0),
    isChain,
    wires,
    wire,
    choices,
    choose: (said, key) => setChoices({ ...choices, [said]: key }),
    adding: (rig, hookup) => addAll(rig, heard, choices, isChain && wires ? hookup : undefined),
    keepRest: () => {
      const rest = heard.filter((h) => !isSame(h, choices) && !boxes.some((b) => b.said === h.said));
      setLine(rest.map((h) => h.said).join(', '));
      setChoices({});
    },
  };
};

interface SayFieldProps extends TextareaProps {
  readonly said: SaidBoxes;
  readonly done: () => void;
}

/** Where it is said: Enter is done, Shift Enter a new line. */
export const SayField = ({ said, done, ...field }: SayFieldProps) => (
  <Textarea
    autosize
    {...field}
    value={said.line}
    onChange={(e) => said.say(e.currentTarget.value)}
    onKeyDown={(e) => {
      if (e.key !== 'Enter' || e.shiftKey) return;
      e.preventDefault();
      done();
    }}
  />
);

/** Everything that was heard, in its order, before anything is added. */
export const Said = ({ said }: { said: SaidBoxes }) => {
  const { heard, isChain, wires, count, choices } = said;
  return (
    <>
      {isChain && count > 1 && (
        <Checkbox
          className="said-wires"
          label="Wire them in this order"
          checked={wires}
          onChange={(e) => said.wire(e.currentTarget.checked)}
        />
      )}
      {heard.length > 0 && (
        <ul className="pieces" aria-label="What will be added">
          {heard.map((h, i) => (
            <Piece
              key={`${i} ${h.said}`}
              heard={h}
              leads={isChain && wires && leadsOn(heard[i + 1])}
              chosen={h.is === 'asked' ? chosenOf(h, choices) : undefined}
              choose={(key) => said.choose(h.said, key)}
            />
          ))}
        </ul>
      )}
    </>
  );
};

const leadsOn = (next: Heard | undefined): boolean => next !== undefined && next.is !== 'refused' && !next.isApart;

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
    <div>
      {chosen
        ? `It will be added as ${chosen.box.name}.`
        : asked.again
          ? `Said before: ${asked.again === 'begins' ? 'another way begins at it' : 'this way leads to it too'}. Or is it one more?`
          : `${asked.why} Which one?`}
    </div>
    <div className="candidates" role="group" aria-label={`What “${asked.said}” is`}>
      {asked.candidates.map((c) => (
        <button key={c.key} type="button" aria-pressed={c === chosen} onClick={() => choose(c.key)}>
          <TagSign code={c.box.code} />
          <strong>{c.box.name}</strong>
          <span className="soft">{doesText(c.box)}</span>
          <span className="soft">{jacksText(c.box)}</span>
        </button>
      ))}
    </div>
  </li>
);
