import { Button } from '@mantine/core';
import {
  actWords,
  freshActuator,
  newAct,
  newStimulus,
  STIMULUS_KINDS,
  stimulusKind,
  stimulusWords,
  type StimulusKind,
} from '@yunta/core/catalogue/switch-words';
import { keysOf } from '@yunta/core/known/keys';
import { withMaybe } from '@yunta/core/known/maybe';
import type { Act } from '@yunta/core/rig/act';
import type { Actuator, Device, Stimulus } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { Choice } from '../../../shared/choice.js';
import { KeptField } from '../../../shared/kept-field.js';
import { ActFields } from './act-fields.js';
import { Conditions } from '../../../shared/figures/conditions.js';
import { Numbered } from '../../../shared/numbered.js';

interface OfBox {
  readonly device: Device;
  readonly change: (device: Device) => void;
}

/** Every switch of a box and everything it listens to, with what each does: a line of words, opened to be changed. */
export const Switches = ({ device, change }: OfBox) => {
  const [opened, open] = useState<number>();
  const put = (actuators: readonly Actuator[]) => change({ ...device, actuators });
  const kinds = keysOf(STIMULUS_KINDS).filter((kind) => newStimulus(device, kind));
  const add = (kind: StimulusKind) => {
    const by = newStimulus(device, kind);
    if (!by) return;
    put([...device.actuators, freshActuator(device, by)]);
    open(device.actuators.length);
  };
  return (
    <section className="card">
      <h2>Switches and messages</h2>
      <ul className="switch-list">
        {device.actuators.map((actuator, i) => (
          <li key={i}>
            {opened === i ? (
              <SwitchFields
                device={device}
                actuator={actuator}
                save={(next) => put(device.actuators.with(i, next))}
                drop={() => {
                  put(device.actuators.filter((_, k) => k !== i));
                  open(undefined);
                }}
                close={() => open(undefined)}
              />
            ) : (
              <button type="button" className="switch-line" onClick={() => open(i)}>
                <strong>{stimulusWords(actuator.by)}</strong>{' '}
                {actuator.acts.map((act) => actWords(device, act)).join('; then ') || 'does nothing yet'}
              </button>
            )}
          </li>
        ))}
      </ul>
      <Choice<StimulusKind | ''>
        aria-label="Add a switch or a message"
        w={260}
        data={[
          { value: '', label: 'Add a switch or a message …' },
          ...kinds.map((value) => ({ value, label: STIMULUS_KINDS[value] })),
        ]}
        value=""
        choose={(kind) => kind && add(kind)}
      />
    </section>
  );
};

const SwitchFields = ({
  device,
  actuator,
  save,
  drop,
  close,
}: {
  device: Device;
  actuator: Actuator;
  save: (actuator: Actuator) => void;
  drop: () => void;
  close: () => void;
}) => {
  const { by, acts } = actuator;
  const of = stimulusWords(by);
  const put = (next: readonly Act[]) => save({ ...actuator, acts: next });
  const more = (['set', 'send', 'load', 'pulse', 'scale'] as const).map((k) => newAct(device, k)).find((a) => a);
  return (
    <div className="switch-fields" role="group" aria-label={of}>
      <StimulusFields device={device} by={by} save={(next) => save({ ...actuator, by: next })} />
      <Conditions
        device={device}
        of={of}
        when={actuator.when}
        always="works always"
        save={(when) => save(withMaybe(actuator, 'when', when))}
      />
      {acts.map((act, i) => (
        <ActFields
          key={i}
          device={device}
          of={`${of}, ${i + 1}`}
          act={act}
          save={(next) => put(acts.with(i, next))}
          drop={() => put(acts.filter((_, k) => k !== i))}
        />
      ))}
      <div className="part-head">
        <Button size="compact-xs" variant="default" disabled={!more} onClick={() => more && put([...acts, more])}>
          It also does …
        </Button>
        <Button size="compact-xs" variant="default" onClick={drop}>
          Take it out
        </Button>
        <Button size="compact-xs" variant="default" onClick={close}>
          Done
        </Button>
      </div>
    </div>
  );
};

const GESTURES = [
  { value: 'press', label: 'pressed' },
  { value: 'release', label: 'let go' },
  { value: 'hold', label: 'held down' },
  { value: 'twice', label: 'pressed twice' },
] as const;

const StimulusFields = ({ device, by, save }: { device: Device; by: Stimulus; save: (by: Stimulus) => void }) => {
  const kinds = keysOf(STIMULUS_KINDS).filter((kind) => kind === stimulusKind(by) || newStimulus(device, kind));
  const jacks = (kind: 'contact' | 'expression') =>
    device.jacks
      .filter((j) => j.kind === kind)
      .flatMap((j) => [...(j.poles.tip === 'in' ? [j.id] : []), ...(j.poles.ring === 'in' ? [`${j.id}:ring`] : [])]);
  return (
    <span className="act-detail">
      <Choice
        aria-label="When"
        data={kinds.map((value) => ({ value, label: STIMULUS_KINDS[value] }))}
        value={stimulusKind(by)}
        choose={(kind) => save(newStimulus(device, kind) ?? by)}
      />
      {'foot' in by && (
        <>
          <KeptField
            size="xs"
            most={LONGEST.word}
            aria-label="Name of the switch"
            value={by.foot}
            save={(foot) => save({ ...by, foot })}
          />
          <Choice aria-label="How" data={GESTURES} value={by.gesture} choose={(gesture) => save({ ...by, gesture })} />
        </>
      )}
      {'midi' in by && 'number' in by && (
        <Numbered label="Number" value={by.number} save={(number) => save({ ...by, number })} />
      )}
      {'midi' in by && by.midi === 'cc' && (
        <>
          <span className="soft">on channel</span>
          <Numbered
            label="Channel, where it is not the box's own"
            min={1}
            max={16}
            value={by.channel}
            save={(channel) => save({ ...by, channel })}
            clear={() => save(withMaybe(by, 'channel', undefined))}
          />
        </>
      )}
      {'contact' in by && (
        <>
          <Choice
            aria-label="Contact at"
            data={jacks('contact')}
            value={by.contact}
            choose={(contact) => save({ ...by, contact })}
          />
          {'edge' in by ? (
            <Choice
              aria-label="Edge"
              data={['closing', 'opening'] as const}
              value={by.edge}
              choose={(edge) => save({ ...by, edge })}
            />
          ) : (
            <Choice
              aria-label="As long as"
              data={['closed', 'open'] as const}
              value={by.level}
              choose={(level) => save({ ...by, level })}
            />
          )}
        </>
      )}
      {'expression' in by && (
        <Choice
          aria-label="Pedal at"
          data={jacks('expression')}
          value={by.expression}
          choose={(expression) => save({ expression })}
        />
      )}
      {'hand' in by && (
        <KeptField
          size="xs"
          most={LONGEST.word}
          aria-label="Name of the knob"
          value={by.hand}
          save={(hand) => save({ hand })}
        />
      )}
      {'position' in by && (
        <Choice
          aria-label="List"
          data={device.memories.map((m) => m.id)}
          value={by.position}
          choose={(position) => save({ position })}
        />
      )}
    </span>
  );
};
