import { Button, Select } from '@mantine/core';
import { clearWant, setWantIn, type Scope } from '@yunta/core/edits/sounds';
import { controlText } from '@yunta/core/recall/words/words';
import type { Curve } from '@yunta/core/rig/act';
import { controlIn } from '@yunta/core/rig/device';
import { ref, splitRef, theRef, type Ref } from '@yunta/core/rig/ids';
import { all, thePart } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { expressionInputs } from '@yunta/core/sheets/typed-cell';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { Amount } from './amount.js';
import type { SoundOnCard } from './detail.js';

const CURVES: readonly { value: Curve; label: string }[] = [
  { value: 'line', label: 'evenly' },
  { value: 'slow', label: 'slow at the heel' },
  { value: 'fast', label: 'fast at the heel' },
];

type PedalWant = Extract<Sound['wants'][number], { pedal: Ref }>;

/** Amounts of a sound that a pedal moves, and how. */
export const Pedals = ({ sound, detail, scope }: SoundOnCard & { scope: Scope }) => {
  const { rig } = useRig();
  const isNone = detail.ownPedals.length === 0 && expressionInputs(rig).length === 0;
  return (
    <section>
      <h2>Under a pedal</h2>
      {sound.wants.map((w) => {
        if (!('pedal' in w)) return null;
        const line = detail.pedals.find((p) => p.control === w.control);
        return (
          <div key={w.control} className="under-pedal">
            <UnderPedal sound={sound} want={w} scope={scope} />
            {line && <p className={line.works ? 'soft' : 'broken'}>{line.says}</p>}
          </div>
        );
      })}
      {detail.ownPedals.map((text) => (
        <p key={text}>{text}</p>
      ))}
      {isNone && <p className="soft">No controller of this rig has an input for a pedal.</p>}
      <PutUnder sound={sound} scope={scope} />
    </section>
  );
};

interface InScope {
  readonly sound: Sound;
  readonly scope: Scope;
}

const usePut = ({ sound, scope }: InScope) => {
  const { rig, edit } = useRig();
  return (want: PedalWant) =>
    edit(setWantIn(sound, want, scope), `${sound.name}: ${controlText(rig, want.control)} under a pedal`);
};

const UnderPedal = ({ want, ...of }: InScope & { want: PedalWant }) => {
  const { rig, edit } = useRig();
  const { sound, scope } = of;
  const put = usePut(of);
  const name = controlText(rig, want.control);
  const standAt = (at: number | undefined) => {
    const { at: _, ...open } = want;
    return put(at === undefined ? open : { ...want, at });
  };
  return (
    <div className="end">
      <strong>{name}</strong>
      <Select
        size="xs"
        w={130}
        label="pedal"
        aria-label={`Pedal for ${name}`}
        allowDeselect={false}
        data={expressionInputs(rig).map((i) => ({ value: i.input, label: i.text }))}
        value={want.pedal}
        onChange={(v) => v && put({ ...want, pedal: theRef(v) })}
      />
      <Amount
        key={`${sound.id} heel`}
        label="heel"
        says={`heel of ${name}`}
        value={want.heel}
        save={(heel) => (heel === undefined ? [] : put({ ...want, heel }))}
      />
      <Amount
        key={`${sound.id} toe`}
        label="toe"
        says={`toe of ${name}`}
        value={want.toe}
        save={(toe) => (toe === undefined ? [] : put({ ...want, toe }))}
      />
      <Select
        size="xs"
        w={130}
        label="follows"
        aria-label={`How ${name} follows`}
        allowDeselect={false}
        data={[...CURVES]}
        value={want.curve ?? 'line'}
        onChange={(v) => v && put({ ...want, curve: v })}
      />
      <Amount
        key={`${sound.id} at`}
        label="until moved"
        says={`until moved of ${name}`}
        value={typeof want.at === 'number' ? want.at : undefined}
        save={standAt}
      />
      <Button
        variant="default"
        size="compact-xs"
        aria-label={`Not under a pedal: ${name}`}
        onClick={() => edit(clearWant(sound, want.control, scope), `${sound.name}: ${name} not under a pedal`)}
      >
        ×
      </Button>
    </div>
  );
};

/** Puts one more amount under one of the pedals, from its least to its most. */
const PutUnder = (of: InScope) => {
  const { rig } = useRig();
  const put = usePut(of);
  const [control, choose] = useState<Ref>();
  const inputs = expressionInputs(rig);
  if (inputs.length === 0) return null;
  const amounts = all(rig, 'device').flatMap((d) =>
    d.controls
      .filter((c) => c.use === 'sound' && 'min' in c.domain && !d.memories.some((m) => m.control === c.id))
      .map((c) => ({ value: ref(d.id, c.id), label: `${controlText(rig, ref(d.id, c.id))}, ${d.name}` })),
  );
  const add = (pedal: Ref) => {
    if (!control) return;
    const { device, name } = splitRef(control);
    const domain = controlIn(thePart(rig, device), name)?.domain;
    if (!domain || !('min' in domain)) return;
    if (put({ control, pedal, heel: domain.min, toe: domain.max }).length === 0) choose(undefined);
  };
  return (
    <div className="end">
      <Select
        size="xs"
        w={220}
        aria-label="Put an amount under a pedal"
        placeholder="which amount"
        searchable
        data={amounts}
        value={control ?? null}
        limit={60}
        nothingFoundMessage="No such amount"
        onChange={(v) => choose(v ?? undefined)}
      />
      {inputs.map((i) => (
        <Button key={i.input} variant="default" size="xs" disabled={!control} onClick={() => add(i.input)}>
          under {i.text}
        </Button>
      ))}
    </div>
  );
};
