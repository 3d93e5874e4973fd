import { someOf } from '@yunta/core/known/some-of';
import { Button, Checkbox } from '@mantine/core';
import type { TypeBox, TypeSlot } from '@yunta/core/derive/views/type-in';
import { together } from '@yunta/core/change/edit';
import { tick, untick, type ProgramPlace, type Typed } from '@yunta/core/edits/ticks';
import { partOf, rigName } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { Boxes, keyOf } from './boxes.js';
import { personHere } from '../../session/person.js';
import { YourName } from '../../shared/your-name.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { theFirst } from '@yunta/core/known/the';

/** Where a slot stands, for what is ticked off there. */
const placeOf = (box: TypeBox, { memory, number, of }: TypeSlot): ProgramPlace => ({
  device: box.device,
  memory,
  number,
  ...(of === undefined ? {} : { of }),
});

/**
 * Box by box and slot by slot, as one stands in front of it. What is ticked off comes back only when it reads
 * otherwise.
 */
export const TypeIn = () => {
  const { rig, hookup } = useRig();
  const navigate = useNavigate();
  const boxes = useAsked(['type in'], (worker) => worker.answers.typeIn());
  const [params, setParams] = useSearchParams();
  const [onlyOpen, setOnlyOpen] = useState(false);
  const [who, setWho] = useState(personHere);
  if (!boxes) return <p className="soft">Working out what each box must hold …</p>;
  if (boxes.length === 0) {
    return (
      <div className="card" style={{ maxWidth: 560 }}>
        <p className="soft" style={{ marginTop: 0 }}>
          No box holds anything yet. A switcher or a foot controller stores sounds; add one in Kit, wire it, and give
          the rig a sound.
        </p>
        <Button size="xs" onClick={() => void navigate('../kit')}>
          To the kit
        </Button>
      </div>
    );
  }
  const box = boxes.find((b) => keyOf(b) === params.get('box')) ?? theFirst(boxes);
  const choose = (b: TypeBox) => setParams({ show: 'type', box: keyOf(b) }, { replace: true });
  const slots = onlyOpen ? box.slots.filter((s) => s.lines.some((l) => !l.ticked) || s.gone.length > 0) : box.slots;
  return (
    <div>
      <div className="print-only">
        <h1>
          {box.code} {box.name}
        </h1>
        <p>
          {rigName(rig)}, {hookup?.name}, revision {rig.revision}, {new Date().toLocaleDateString()}
        </p>
      </div>
      <div className="type-groups no-print">
        {GROUPS.map(({ heading, isController, says }) => {
          const group = boxes.filter((b) => b.isController === isController);
          return (
            group.length > 0 && (
              <div key={heading} className="type-group">
                <h2>{heading}</h2>
                <Boxes boxes={group} chosen={box} choose={choose} says={says} isDone={(b) => b.open === 0} />
              </div>
            )
          );
        })}
      </div>
      <div className="type-how">
        <span className="soft">
          {box.counts}
          {box.channel ? `, ${box.channel}` : ''}
        </span>
        <Checkbox
          size="xs"
          label="Only what is still to type"
          checked={onlyOpen}
          onChange={(e) => setOnlyOpen(e.currentTarget.checked)}
        />
        <YourName told={setWho} />
        <AllTyped box={box} who={who} />
      </div>
      {slots.length === 0 && <p className="proved">All of {box.name} is typed in.</p>}
      <div className="card type-slots">
        {slots.map((slot) => (
          <Slot
            key={`${keyOf(box)} ${slot.memory} ${slot.of ?? ''} ${slot.number}`}
            box={box}
            slot={slot}
            who={who}
            onlyOpen={onlyOpen}
          />
        ))}
      </div>
    </div>
  );
};

const left = (b: TypeBox, verb: string, done: string): string =>
  b.lines === 0 ? `nothing to ${verb}` : b.open === 0 ? `✓ ${done}` : `${b.open} to ${verb}`;

/** What is stomped on is typed in; what is called is dialled in. */
const GROUPS = [
  { heading: 'Type into the controllers', isController: true, says: (b: TypeBox) => left(b, 'type', 'all typed') },
  { heading: 'Dial in at the boxes', isController: false, says: (b: TypeBox) => left(b, 'dial in', 'all dialled in') },
];

const howNow = (who: string, revision: number) => ({
  by: who.trim() || 'somebody',
  revision,
  when: new Date().toISOString(),
});

/** Ticks off every line of a box at once. */
const AllTyped = ({ box, who }: { box: TypeBox; who: string }) => {
  const { rig, edit } = useRig();
  if (box.open === 0) return null;
  const all = () =>
    edit(
      together(
        ...box.slots
          .filter((s) => s.lines.length > 0)
          .map((s) =>
            tick(
              rig,
              placeOf(box, s),
              s.lines.filter((l) => !l.ticked),
              s.lines,
              howNow(who, rig.revision),
            ),
          ),
      ),
      `${box.code}: all typed in`,
    );
  return (
    <Button size="compact-sm" variant="default" className="no-print" onClick={all}>
      All of {box.code} is typed in
    </Button>
  );
};

const Slot = ({ box, slot, who, onlyOpen }: { box: TypeBox; slot: TypeSlot; who: string; onlyOpen: boolean }) => {
  const { rig, edit } = useRig();
  const place = placeOf(box, slot);
  const open = slot.lines.filter((l) => !l.ticked);
  const done = (lines: readonly Typed[]) =>
    edit(tick(rig, place, lines, slot.lines, howNow(who, rig.revision)), `${box.code} ${slot.shown}: typed in`);
  const names = slot.sounds.flatMap((id) => partOf(rig, id)?.name ?? []).filter((n) => n !== slot.name);
  return (
    <section className="type-slot" aria-label={`${box.code} ${slot.shown}`}>
      <div>
        <div className="type-number mono">{slot.shown}</div>
        {slot.lines.length > 0 && (
          <Button
            variant="default"
            size="compact-xs"
            className="no-print"
            disabled={open.length === 0}
            aria-label={`Tick all lines, ${box.code} ${slot.shown}`}
            onClick={() => done(open)}
          >
            Tick all lines
          </Button>
        )}
      </div>
      <div style={{ minWidth: 0 }}>
        <strong style={{ overflowWrap: 'anywhere' }}>{slot.name || 'a program of the box'}</strong>
        {names.length > 0 && <span className="soft"> called by {someOf(names, 4)}</span>}
        {slot.typed && box.slots.some((s) => !s.typed) && <span className="soft"> · as somebody typed it</span>}
        <Link
          className="type-otherwise no-print"
          to={{ search: `?${new URLSearchParams({ show: 'write', box: keyOf(box), number: String(slot.number) })}` }}
          aria-label={`${slot.unknown ? 'Write down what it holds' : 'It holds something else'}, ${box.code} ${slot.shown}`}
        >
          {slot.unknown ? 'Write down what it holds' : 'It holds something else'}
        </Link>
        {slot.unknown && (
          <p className="soft" style={{ margin: '2px 0 0' }}>
            What it holds is not written down. It must be there and sound as wanted.
          </p>
        )}
        <ul className="type-lines">
          {slot.lines
            .filter((l) => !onlyOpen || !l.ticked)
            .map((line) => (
              <li key={line.text}>
                <Checkbox
                  size="sm"
                  checked={line.ticked !== undefined}
                  onChange={(e) =>
                    void (e.currentTarget.checked
                      ? done([line])
                      : edit(untick(rig, place, line), `${box.code} ${slot.shown}: not typed in after all`))
                  }
                  label={
                    <>
                      <span className={line.ticked ? 'soft' : ''}>{line.text}</span>
                      {line.bytes && <span className="mono type-bytes">{line.bytes}</span>}
                      {line.why && <span className="soft type-why">{line.why}</span>}
                      {line.ticked && (
                        <span className="soft type-who">
                          {' '}
                          · {line.ticked.by}, revision {line.ticked.revision}
                        </span>
                      )}
                    </>
                  }
                />
              </li>
            ))}
          {slot.gone.map((text) => (
            <li key={text} className="soft type-gone">
              was typed: <s>{text}</s>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
};
