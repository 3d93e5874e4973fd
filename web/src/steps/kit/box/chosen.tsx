import { Button } from '@mantine/core';
import {
  carry,
  figurePlace,
  isFreeStage,
  rowIn,
  slotAt,
  takeOut,
  withSlot,
  type Place,
} from '@yunta/core/catalogue/inside-edits';
import { STAGES, type Arm, type Block, type Chain, type Device, type Fork, type Insert } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse, type Refusal, type Result } from '@yunta/core/rig/result';
import { withMaybe } from '@yunta/core/known/maybe';
import type { ReactNode } from 'react';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { TypedText } from '../../../shared/typed-text.js';
import { Conditions } from '../../../shared/figures/conditions.js';
import { FiguresAt } from './figures.js';
import type { Chosen } from './inside-drawn.js';
import { Taps } from './taps.js';
import type { Draft } from './use-draft.js';

const WIDTHS = [
  { value: 'as it comes', label: 'as it comes' },
  { value: 'mono', label: 'mono' },
  { value: 'each', label: 'each side by itself' },
  { value: 'spread', label: 'makes two sides' },
  { value: 'sum', label: 'adds both sides' },
] as const;
const UNPATCHED = [
  { value: 'through', label: 'sound goes through' },
  { value: 'broken', label: 'nothing gets through' },
] as const;
const BREAKS = [
  { value: 'return', label: 'a plug in the return' },
  { value: 'send', label: 'a plug in the send' },
  { value: 'either', label: 'a plug in either' },
] as const;
const DIRECT = [
  { value: 'no', label: 'no, all goes through the loop' },
  { value: 'yes', label: 'yes, beside the loop' },
  { value: 'when', label: 'yes, but only while …' },
] as const;
const BANDS = [
  { value: 'all', label: 'all of it' },
  { value: 'low', label: 'the lows' },
  { value: 'high', label: 'the highs' },
] as const;
const LEGS = [
  { value: 'both', label: 'both sides' },
  { value: 'left', label: 'left' },
  { value: 'right', label: 'right' },
] as const;

interface OfChosen {
  readonly draft: Draft;
  readonly choose: (chosen: Chosen | undefined) => void;
}

/** What is chosen in the drawing, with all that can be said of it. */
export const ChosenPart = ({ draft, chosen, choose }: OfChosen & { readonly chosen: Chosen | undefined }) => {
  if (!chosen)
    return (
      <p className="soft">
        A plus puts a stage, a loop or a split on the line. Choose a tag to name it, or carry it to another place.
      </p>
    );
  if ('chain' in chosen) return <WayPart draft={draft} id={chosen.chain} choose={choose} />;
  return <SlotPart draft={draft} place={chosen} choose={choose} />;
};

/** A line of the panel: what it is about, then its fields. */
const Line = ({ about, children }: { about: string; children: ReactNode }) => (
  <div className="part-line">
    <span className="soft">{about}</span>
    <div>{children}</div>
  </div>
);

const SlotPart = ({ draft, place, choose }: OfChosen & { readonly place: Place }) => {
  const { device, change, rename } = draft;
  const slot = slotAt(device, place);
  if (!slot) return null;
  const last = rowIn(device, place.row).length - 1;
  const move = (at: number) => {
    const done = carry(device, place, { row: place.row, at });
    change(done.device);
    choose(done.place);
  };
  const put = (next: Block | Insert | Fork) => change(withSlot(device, place, next));
  return (
    <div className="part" role="group" aria-label={`Chosen: ${slot.id}`}>
      <div className="part-head">
        <Named
          label="Name of the stage"
          name={slot.id}
          isFree={(name) => isFreeStage(device, name)}
          rename={(to) => rename({ of: 'stage', from: slot.id, to })}
        />
        <Button size="compact-sm" variant="default" disabled={place.at === 0} onClick={() => move(place.at - 1)}>
          Earlier
        </Button>
        <Button size="compact-sm" variant="default" disabled={place.at >= last} onClick={() => move(place.at + 2)}>
          Later
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            change(takeOut(device, place));
            choose(undefined);
          }}
        >
          Take {slot.id} out
        </Button>
      </div>
      {slot.is === 'block' && <BlockPart device={device} block={slot} put={put} />}
      {slot.is === 'insert' && <InsertPart device={device} insert={slot} put={put} />}
      {slot.is === 'fork' && <ForkPart draft={draft} fork={slot} place={place} put={put} />}
      <FiguresAt device={device} at={figurePlace(device, place)} save={change} />
    </div>
  );
};

/** A name that nothing else has; another one is brought to all that speaks of it. */
const Named = ({
  label,
  name,
  isFree,
  rename,
}: {
  label: string;
  name: string;
  isFree: (name: string) => boolean;
  rename: (name: string) => void;
}) => (
  <TypedText
    most={LONGEST.word}
    label={label}
    text={name}
    read={(text): Result<unknown, readonly Refusal[]> => {
      const to = text.trim().replaceAll(/\s+/g, '-');
      if (to === name) return ok(name);
      if (!to || !isFree(to))
        return refuse([
          {
            code: 'name',
            where: '',
            wrong: to ? `"${to}" is there already.` : 'It needs a name.',
            would: 'Type another.',
          },
        ]);
      rename(to);
      return ok(to);
    }}
  />
);

const BlockPart = ({ device, block, put }: { device: Device; block: Block; put: (block: Block) => void }) => (
  <>
    <Line about="is">
      <Choice aria-label="What it is" data={STAGES} value={block.stage} choose={(stage) => put({ ...block, stage })} />
    </Line>
    <Line about="in the sound">
      <Conditions
        device={device}
        of={block.id}
        when={block.on}
        always="always"
        save={(on) => put(withMaybe(block, 'on', on))}
      />
    </Line>
    <Line about="two sides">
      <Choice
        aria-label="What it does with two sides"
        data={WIDTHS}
        value={block.width ?? 'as it comes'}
        choose={(width) => put(withMaybe(block, 'width', width === 'as it comes' ? undefined : width))}
      />
    </Line>
  </>
);

const InsertPart = ({ device, insert, put }: { device: Device; insert: Insert; put: (insert: Insert) => void }) => {
  const { direct } = insert;
  return (
    <>
      <Line about="sends">
        <Taps device={device} of="send" poles="out" taps={insert.send} save={(send) => put({ ...insert, send })} />
      </Line>
      <Line about="comes back">
        <Taps
          device={device}
          of="return"
          poles="in"
          taps={insert.return}
          save={(back) => put({ ...insert, return: back })}
        />
      </Line>
      <Line about="in the sound">
        <Conditions
          device={device}
          of={insert.id}
          when={insert.on}
          always="always"
          save={(on) => put(withMaybe(insert, 'on', on))}
        />
      </Line>
      <Line about="with nothing plugged in">
        <Choice
          aria-label="With nothing plugged in"
          data={UNPATCHED}
          value={insert.unpatched}
          choose={(unpatched) => put({ ...insert, unpatched })}
        />
      </Line>
      <Line about="opened by">
        <Choice
          aria-label="What opens the loop"
          data={BREAKS}
          value={insert.breaks ?? 'return'}
          choose={(breaks) => put(withMaybe(insert, 'breaks', breaks === 'return' ? undefined : breaks))}
        />
      </Line>
      <Line about="direct sound goes on">
        <Choice
          aria-label="Whether direct sound goes on"
          data={DIRECT}
          value={typeof direct === 'object' ? 'when' : direct ? 'yes' : 'no'}
          choose={(is) => put(withMaybe(insert, 'direct', is === 'no' ? undefined : is === 'yes' ? true : []))}
        />
        {typeof direct === 'object' && (
          <Conditions
            device={device}
            of="direct sound"
            when={direct}
            always="always"
            save={(when) => put({ ...insert, direct: when ?? [] })}
          />
        )}
      </Line>
    </>
  );
};

const ForkPart = ({
  draft,
  fork,
  place,
  put,
}: {
  draft: Draft;
  fork: Fork;
  place: Place;
  put: (fork: Fork) => void;
}) => {
  const { device, change } = draft;
  const arm = (i: number, next: Arm) => put({ ...fork, arms: fork.arms.with(i, next) });
  const add = () => {
    let n = fork.arms.length + 1;
    while (fork.arms.some((a) => a.id === `way${n}`)) n += 1;
    put({ ...fork, arms: [...fork.arms, { id: `way${n}`, slots: [] }] });
  };
  return (
    <>
      {fork.arms.map((a, i) => (
        <div key={i} className="part-arm" role="group" aria-label={`Way ${a.id} of ${fork.id}`}>
          <div className="part-head">
            <KeptField
              size="xs"
              most={LONGEST.word}
              aria-label={`Name of way ${i + 1}`}
              value={a.id}
              save={(id) => !fork.arms.some((other) => other.id === id) && arm(i, { ...a, id })}
            />
            <Choice
              aria-label={`What goes into ${a.id}`}
              data={BANDS}
              value={a.band ?? 'all'}
              choose={(band) => arm(i, withMaybe(a, 'band', band === 'all' ? undefined : band))}
            />
            <Choice
              aria-label={`Sides of ${a.id}`}
              data={LEGS}
              value={a.leg ?? 'both'}
              choose={(leg) => arm(i, withMaybe(a, 'leg', leg === 'both' ? undefined : leg))}
            />
            <Button
              size="compact-xs"
              variant="default"
              disabled={fork.arms.length === 1}
              onClick={() => put({ ...fork, arms: fork.arms.filter((_, k) => k !== i) })}
            >
              Take way {a.id} out
            </Button>
          </div>
          <Line about="open">
            <Conditions
              device={device}
              of={`way ${a.id}`}
              when={a.when}
              always="always"
              save={(when) => arm(i, withMaybe(a, 'when', when))}
            />
          </Line>
          <FiguresAt device={device} at={`${figurePlace(device, place)}/${a.id}`} save={change} />
        </div>
      ))}
      <Button size="compact-sm" variant="default" onClick={add}>
        Add a way beside them
      </Button>
    </>
  );
};

/** A way through the box: its name, where it begins and ends, when it is open. */
const WayPart = ({ draft, id, choose }: OfChosen & { readonly id: string }) => {
  const { device, change } = draft;
  const chain = device.chains.find((c) => c.id === id);
  if (!chain) return null;
  const put = (next: Chain) => change({ ...device, chains: device.chains.map((c) => (c === chain ? next : c)) });
  return (
    <div className="part" role="group" aria-label={`Chosen: way ${id}`}>
      <div className="part-head">
        <Named
          label="Name of the way"
          name={id}
          isFree={(name) => !device.chains.some((c) => c.id === name)}
          rename={(to) => {
            put({ ...chain, id: to });
            choose({ chain: to });
          }}
        />
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            change({ ...device, chains: device.chains.filter((c) => c !== chain) });
            choose(undefined);
          }}
        >
          Take way {id} out
        </Button>
      </div>
      <Line about="comes from">
        <Taps device={device} of="from" poles="in" taps={chain.from} save={(from) => put({ ...chain, from })} />
      </Line>
      <Line about="goes to">
        <Taps device={device} of="to" poles="out" taps={chain.to} save={(to) => put({ ...chain, to })} />
      </Line>
      <Line about="open">
        <Conditions
          device={device}
          of={`way ${id}`}
          when={chain.when}
          always="always"
          save={(when) => put(withMaybe(chain, 'when', when))}
        />
      </Line>
      <FiguresAt device={device} at={`chain ${id}`} save={change} />
    </div>
  );
};
