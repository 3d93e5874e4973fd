import { Button, Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { together } from '@yunta/core/change/edit';
import type { BoxesInOrder } from '@yunta/core/derive/views/boxes-in-order';
import { clearOrder, wantBefore } from '@yunta/core/edits/arrange';
import type { OrderPlan, OrderWant } from '@yunta/core/plan/order/order';
import { isArrangement } from '@yunta/core/rig/box';
import { makesSound } from '@yunta/core/rig/device';
import { ref, theId } from '@yunta/core/rig/ids';
import { all, soundsInOrder, thePart, type Rig } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { planned } from '../../worker/planned.js';
import { Took } from './took.js';

/** Whether one order of the boxes serves every sound; if not, which wants contradict and what is the cheapest way out. */
export const BoxOrder = () => {
  const of = useAsked(['boxes in order'], (worker) => worker.night.boxesInOrder());
  const plan = useQuery({
    queryKey: ['box order', JSON.stringify(of?.problem)],
    queryFn: () => (of ? planned((planning) => planning.order(of.problem)) : null),
    enabled: of !== undefined,
    staleTime: Infinity,
  });
  return (
    <section className="card">
      <h2>Order of the boxes</h2>
      {!of && (
        <p className="soft">
          No sound asks for an order of its own: all take the boxes as they are wired. Where a sound wants two boxes the
          other way round, say it here, or carry them in the card of the sound.
        </p>
      )}
      <div aria-live="polite">
        {of && plan.data?.plan && <Answer of={of} plan={plan.data.plan} />}
        {of && plan.data?.plan && <Took seconds={plan.data.seconds} />}
        {(plan.isError || (plan.data && !plan.data.plan)) && (
          <p className="broken">The planner found nothing in its time.</p>
        )}
      </div>
      <SayOrder />
    </section>
  );
};

const wantText = (of: BoxesInOrder, { by, before, after }: OrderWant): string =>
  `“${of.sounds[by]?.name}” wants ${of.boxes[before]?.code} before ${of.boxes[after]?.code}`;

const Answer = ({ of, plan }: { of: BoxesInOrder; plan: OrderPlan }) => {
  const { rig, edit } = useRig();
  const order = plan.order.map((box) => of.boxes[box]?.code).join(', ');
  const asWired = plan.order.every((box, i) => of.problem.now[i] === box);
  if (plan.giveWay.length === 0)
    return (
      <p>
        <strong>One order gives every sound what it asks for: {order}</strong>
        {asWired ? ', as it is wired now' : '. Sounds that ask for none would take it too'}.
        {of.beside.length === 0
          ? ' No switcher has to reorder anything for it.'
          : ` ${of.beside.join(', ')} lead ways beside each other, which only a switcher that reorders can give.`}
      </p>
    );
  const names = plan.giveWay.map((by) => `“${of.sounds[by]?.name}”`).join(', ');
  const giveWay = (): void => {
    const sounds = plan.giveWay.flatMap((by) => of.sounds[by]?.id ?? []);
    edit(
      together(...sounds.map((id) => clearOrder(thePart(rig, id), arrangements(rig)))),
      `${names}: order of the others`,
    );
  };
  return (
    <>
      <p>
        <strong>No one order gives every sound what it asks for.</strong> These contradict each other:
      </p>
      <ul>
        {of.contradiction.map((want) => (
          <li key={`${want.by} ${want.before} ${want.after}`}>{wantText(of, want)}</li>
        ))}
      </ul>
      <p>
        The cheapest way out: {names} {plan.giveWay.length === 1 ? 'takes' : 'take'} the order of the others, {order}
        {plan.bound >= plan.giveWay.length
          ? '; fewer cannot give way'
          : `; at least ${plan.bound} must give way, as far as it is proved`}
        . Or keep all of them with these boxes in loops of a switcher that can reorder
        {reorders(rig) ? '; there is one in this rig' : ''}.
      </p>
      <Button size="xs" variant="default" onClick={giveWay}>
        Let {plan.giveWay.length === 1 ? names : `these ${plan.giveWay.length}`} give way
      </Button>
    </>
  );
};

const arrangements = (rig: Rig) =>
  all(rig, 'device').flatMap((d) =>
    d.controls.map((c) => ref(d.id, c.id)).filter((control) => isArrangement(rig, control)),
  );
const reorders = (rig: Rig): boolean => arrangements(rig).length > 0;

/** A wish for two boxes in a sound, in the words of a person. */
const SayOrder = () => {
  const { rig, edit } = useRig();
  const [sound, setSound] = useState<string | null>(null);
  const [first, setFirst] = useState<string | null>(null);
  const [second, setSecond] = useState<string | null>(null);
  const boxes = all(rig, 'device')
    .filter((d) => makesSound(d) && d.chains.some((c) => c.slots.some((s) => s.is === 'block')))
    .map((d) => ({ value: d.id, label: `${d.code} ${d.name}` }));
  const sounds = soundsInOrder(rig).map((s) => ({ value: s.id, label: s.name }));
  if (boxes.length < 2 || sounds.length === 0) return null;
  const say = (): void => {
    if (!sound || !first || !second) return;
    const wanted = thePart(rig, theId('sound', sound));
    const [a, b] = [thePart(rig, theId('device', first)), thePart(rig, theId('device', second))];
    edit(wantBefore(wanted, a, b), `${wanted.name}: ${a.code} before ${b.code}`);
    setSound(null);
  };
  const choice = (
    label: string,
    data: readonly { readonly value: string; readonly label: string }[],
    value: string | null,
    set: (v: string | null) => void,
  ) => (
    <Select
      size="xs"
      w={190}
      aria-label={label}
      placeholder={label}
      searchable
      data={[...data]}
      value={value}
      onChange={set}
    />
  );
  return (
    <div className="sheet-tools">
      {choice('a sound', sounds, sound, setSound)}
      <span>wants</span>
      {choice('this box', boxes, first, setFirst)}
      <span>before</span>
      {choice(
        'that box',
        boxes.filter((b) => b.value !== first),
        second,
        setSecond,
      )}
      <Button size="xs" variant="default" disabled={!sound || !first || !second} onClick={say}>
        Say so
      </Button>
    </div>
  );
};
