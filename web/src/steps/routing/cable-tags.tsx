import { Checkbox, NumberInput } from '@mantine/core';
import { changeCable } from '@yunta/core/edits/cables';
import { USUAL_PF_PER_M } from '@yunta/core/electric/front/front-end';
import { USUAL_AWG } from '@yunta/core/electric/speakers/power';
import { jackAt } from '@yunta/core/rig/box';
import { CONNECTORS, type Connector } from '@yunta/core/rig/device';
import type { Cable } from '@yunta/core/rig/hookup';
import type { Ref } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { SourceFields } from '../../shared/figures/source-choice.js';
import { today } from '../../shared/today.js';
import { Choice } from '../../shared/choice.js';
import { jackText } from './jack-text.js';
import { TextField } from '../../shared/text-field.js';

const LONGEST_LEAD = 1000;

/** What is written down of a cable: its length, and what is on it. */
export const CableTags = ({ cable, called }: { cable: Cable; called: string }) => {
  const { edit, rig } = useRig();
  const change = (part: Parameters<typeof changeCable>[1], what: string) =>
    edit(changeCable(cable, part), `${called}: ${what}`);
  return (
    <fieldset className="cable-tags">
      <legend className="visually-hidden">Written down of this cable</legend>
      <NumberInput
        size="xs"
        label="Length, m"
        hideControls
        min={0}
        max={LONGEST_LEAD}
        clampBehavior="strict"
        decimalScale={2}
        value={cable.m ?? ''}
        onChange={(v) => change({ m: typeof v === 'number' && v > 0 ? v : undefined }, 'length')}
      />
      {jackAt(rig, cable.ends[0])?.kind === 'audio' && jackAt(rig, cable.ends[0])?.level !== 'speaker' && (
        <NumberInput
          size="xs"
          label="pF a metre"
          placeholder={String(USUAL_PF_PER_M)}
          hideControls
          min={1}
          max={10_000}
          clampBehavior="blur"
          value={cable.pFPerM ?? ''}
          onChange={(v) => {
            const pFPerM = typeof v === 'number' && v > 0 ? v : undefined;
            const isMeasured = cable.pFFrom?.from === 'measured';
            const pFFrom = !pFPerM ? undefined : isMeasured ? { ...cable.pFFrom, on: today() } : cable.pFFrom;
            change({ pFPerM, pFFrom }, 'capacitance');
          }}
        />
      )}
      {cable.pFPerM !== undefined && (
        <SourceFields
          source={cable.pFFrom ?? { from: 'assumed' }}
          about="pF a metre"
          save={(pFFrom) => change({ pFFrom }, 'where its capacitance comes from')}
        />
      )}
      {jackAt(rig, cable.ends[0])?.level === 'speaker' && (
        <NumberInput
          size="xs"
          label="Gauge, AWG"
          placeholder={String(USUAL_AWG)}
          hideControls
          min={0}
          max={40}
          allowDecimal={false}
          clampBehavior="blur"
          value={cable.awg ?? ''}
          onChange={(v) => change({ awg: typeof v === 'number' ? v : undefined }, 'gauge')}
        />
      )}
      <Plugs cable={cable} save={(plugs) => change({ plugs }, 'plugs')} />
      <Bent cable={cable} save={(angled) => change({ angled }, 'bent plugs')} />
      <Words label="Tag" kept={cable.label} save={(label) => change({ label }, 'tag')} />
      <Words label="Colour" kept={cable.colour} save={(colour) => change({ colour }, 'colour')} />
      <Checkbox
        size="xs"
        label="I have it"
        checked={cable.have ?? false}
        onChange={(e) =>
          change(
            { have: e.currentTarget.checked || undefined },
            e.currentTarget.checked ? 'I have it' : 'not there yet',
          )
        }
      />
      <Checkbox
        size="xs"
        label="Made by hand"
        checked={cable.byHand ?? false}
        onChange={(e) =>
          change({ byHand: e.currentTarget.checked || undefined }, e.currentTarget.checked ? 'made by hand' : 'bought')
        }
      />
      {jackAt(rig, cable.ends[0])?.kind === 'power' && (
        <Checkbox
          size="xs"
          label="Turns the polarity"
          checked={cable.turns ?? false}
          onChange={(e) =>
            change(
              { turns: e.currentTarget.checked || undefined },
              e.currentTarget.checked ? 'turns the polarity' : 'an ordinary lead',
            )
          }
        />
      )}
      <p className="soft">Colour is not used yet.</p>
    </fieldset>
  );
};

const AS_JACKS = 'as its jacks want';

/** The plugs at both ends, where they are other than what the jacks want. */
const Plugs = ({ cable, save }: { cable: Cable; save: (plugs: Cable['plugs']) => void }) => {
  const { rig } = useRig();
  const [one, other] = cable.ends;
  const usual = (end: Ref) => jackAt(rig, end)?.connector ?? '6.35 TS';
  const now = cable.plugs ?? [usual(one), usual(other)];
  return ([0, 1] as const).map((i) => (
    <Choice<Connector | typeof AS_JACKS>
      key={i}
      label={`Plug at ${jackText(rig, cable.ends[i])}`}
      data={[AS_JACKS, ...CONNECTORS]}
      value={cable.plugs ? cable.plugs[i] : AS_JACKS}
      choose={(plug) => save(plug === AS_JACKS ? undefined : i === 0 ? [plug, now[1]] : [now[0], plug])}
    />
  ));
};

const BENT = ['as usual', 'both straight', 'both bent', 'the first bent', 'the second bent'] as const;
const bentAs = (angled: Cable['angled']): (typeof BENT)[number] =>
  !angled
    ? 'as usual'
    : angled[0]
      ? angled[1]
        ? 'both bent'
        : 'the first bent'
      : angled[1]
        ? 'the second bent'
        : 'both straight';

/** Which of its plugs are bent by a right angle. */
const Bent = ({ cable, save }: { cable: Cable; save: (angled: Cable['angled']) => void }) => (
  <Choice
    label="Plugs, straight or bent"
    data={BENT}
    value={bentAs(cable.angled)}
    choose={(bent) =>
      save(
        bent === 'as usual'
          ? undefined
          : [bent === 'both bent' || bent === 'the first bent', bent === 'both bent' || bent === 'the second bent'],
      )
    }
  />
);

/** Words that are kept when the field is left, or with Enter. */
const Words = ({
  label,
  kept,
  save,
}: {
  label: string;
  kept: string | undefined;
  save: (text: string | undefined) => void;
}) => {
  const [typed, setTyped] = useState<string>();
  const done = () => {
    if (typed !== undefined && typed.trim() !== (kept ?? '')) save(typed.trim() || undefined);
    setTyped(undefined);
  };
  return (
    <TextField
      most={LONGEST.label}
      size="xs"
      label={label}
      value={typed ?? kept ?? ''}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && done()}
    />
  );
};
