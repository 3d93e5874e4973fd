import { Button } from '@mantine/core';
import { ACT_KINDS, actKind, newAct, positionsOf, type ActKind } from '@yunta/core/catalogue/switch-words';
import { keysOf } from '@yunta/core/known/keys';
import { withMaybe } from '@yunta/core/known/maybe';
import type { Act, Message } from '@yunta/core/rig/act';
import type { Device } from '@yunta/core/rig/device';
import { LONGEST, TEMPO } from '@yunta/core/rig/limits';
import { ok, refuse, type Refusal, type Result } from '@yunta/core/rig/result';
import type { Value } from '@yunta/core/rig/value';
import { Choice } from '../../../shared/choice.js';
import { TypedText } from '../../../shared/typed-text.js';
import { Conditions } from '../../../shared/figures/conditions.js';
import { Numbered } from '../../../shared/numbered.js';

interface OfAct<A extends Act = Act> {
  readonly device: Device;
  readonly of: string;
  readonly act: A;
  readonly save: (act: Act) => void;
}

const HIGHEST_BANK = 16_383;
const LONGEST_WAIT_MS = 60_000;

/** One thing that a switch does, as choices. */
export const ActFields = ({ device, of, act, save, drop }: OfAct & { readonly drop: () => void }) => {
  const kinds = keysOf(ACT_KINDS).filter((kind) => kind === actKind(act) || newAct(device, kind));
  return (
    <div className="act">
      <Choice
        aria-label={`${of} does`}
        data={kinds.map((value) => ({ value, label: ACT_KINDS[value] }))}
        value={actKind(act)}
        choose={(kind: ActKind) => save(newAct(device, kind) ?? act)}
      />
      <ActDetail device={device} of={of} act={act} save={save} />
      <Conditions
        device={device}
        of={`${of}, this`}
        when={act.when}
        always=""
        save={(when) => save(withMaybe(act, 'when', when))}
      />
      <Button size="compact-xs" variant="default" aria-label={`${of}: drop this`} onClick={drop}>
        ✕
      </Button>
    </div>
  );
};

const ActDetail = ({ device, of, act, save }: OfAct) => {
  if ('send' in act) return <SendFields device={device} of={of} act={act} save={save} />;
  if ('pulse' in act)
    return (
      <Choice
        aria-label={`${of} closes`}
        data={outs(device, 'contact')}
        value={act.pulse}
        choose={(pulse) => save({ ...act, pulse })}
      />
    );
  if ('follow' in act)
    return (
      <>
        <Choice
          aria-label={`${of} follows`}
          data={device.memories.flatMap((m) => (m.assignable ?? []).map((p) => p.switch))}
          value={act.follow}
          choose={(follow) => save({ ...act, follow })}
        />
        <Choice
          aria-label={`${of} when it is`}
          data={[
            { value: 'press', label: 'pressed' },
            { value: 'release', label: 'let go' },
          ]}
          value={act.gesture}
          choose={(gesture) => save({ ...act, gesture })}
        />
      </>
    );
  return 'load' in act ? (
    <LoadFields device={device} of={of} act={act} save={save} />
  ) : (
    <SetFields device={device} of={of} act={act} save={save} />
  );
};

const outs = (device: Device, kind: 'midi' | 'contact'): readonly string[] =>
  device.jacks
    .filter((j) => j.kind === kind)
    .flatMap((j) => [...(j.poles.tip === 'out' ? [j.id] : []), ...(j.poles.ring === 'out' ? [`${j.id}:ring`] : [])]);

const MESSAGES = [
  { value: 'pc', label: 'program' },
  { value: 'cc', label: 'controller' },
  { value: 'bpm', label: 'clock' },
] as const;
const FIRST: Readonly<Record<(typeof MESSAGES)[number]['value'], Message>> = {
  pc: { pc: 0, channel: 1 },
  cc: { cc: 80, value: 127, channel: 1 },
  bpm: { bpm: 120 },
};

/** A message as the wire carries it: numbers from 0, channels from 1. */
const SendFields = ({ device, of, act, save }: OfAct<Extract<Act, { send: Message }>>) => {
  const { send } = act;
  const put = (message: Message) => save({ ...act, send: message });
  const kind = 'pc' in send ? 'pc' : 'cc' in send ? 'cc' : 'bpm';
  return (
    <span className="act-detail">
      <Choice aria-label={`${of} sends`} data={MESSAGES} value={kind} choose={(k) => put(FIRST[k])} />
      {'pc' in send && (
        <>
          <Numbered label={`${of}, program, counted from 0`} value={send.pc} save={(pc) => put({ ...send, pc })} />
          <span className="soft">of bank</span>
          <Numbered
            label={`${of}, bank`}
            max={HIGHEST_BANK}
            value={send.bank}
            save={(bank) => put({ ...send, bank })}
            clear={() => put(withMaybe(send, 'bank', undefined))}
          />
        </>
      )}
      {'cc' in send && (
        <>
          <Numbered label={`${of}, controller`} value={send.cc} save={(cc) => put({ ...send, cc })} />
          <span className="soft">at</span>
          <Numbered label={`${of}, value`} value={send.value} save={(value) => put({ ...send, value })} />
        </>
      )}
      {'bpm' in send ? (
        <Numbered label={`${of}, tempo`} {...TEMPO} decimal value={send.bpm} save={(bpm) => put({ bpm })} />
      ) : (
        <>
          <span className="soft">on channel</span>
          <Numbered
            label={`${of}, channel`}
            min={1}
            max={16}
            value={send.channel}
            save={(channel) => put({ ...send, channel })}
          />
        </>
      )}
      <span className="soft">from</span>
      <Choice
        aria-label={`${of}, jack`}
        data={outs(device, 'midi')}
        value={act.at}
        choose={(at) => save({ ...act, at })}
      />
      <span className="soft">after ms</span>
      <Numbered
        label={`${of}, wait in ms`}
        max={LONGEST_WAIT_MS}
        value={act.afterMs}
        save={(afterMs) => save({ ...act, afterMs })}
        clear={() => save(withMaybe(act, 'afterMs', undefined))}
      />
    </span>
  );
};

const SLOTS = [
  { value: 'number', label: 'number' },
  { value: 'value', label: 'of the message' },
  { value: 'bank', label: 'of the bank that shows' },
] as const;

const LoadFields = ({ device, of, act, save }: OfAct<Extract<Act, { load: string }>>) => {
  const { slot } = act;
  const memory = device.memories.find((m) => m.id === act.load);
  const banks = memory?.bank ? positionsOf(device, memory.bank.control) : [];
  const size = memory?.shows.bank?.size ?? memory?.switches?.length ?? 1;
  const kind = typeof slot === 'number' ? 'number' : slot === 'value' ? 'value' : 'bank';
  return (
    <span className="act-detail">
      <Choice
        aria-label={`${of} loads from`}
        data={device.memories.map((m) => m.id)}
        value={act.load}
        choose={(load) => save({ ...act, load })}
      />
      <Choice
        aria-label={`${of}, which program`}
        data={SLOTS.filter((s) => s.value !== 'bank' || memory?.bank || kind === 'bank')}
        value={kind}
        choose={(k) => {
          if (k !== 'bank') save({ ...act, slot: k === 'value' ? 'value' : 0 });
          else if (memory?.bank) save({ ...act, slot: { bank: memory.bank.control, banks, plus: 0, size } });
        }}
      />
      {typeof slot === 'number' && (
        <Numbered
          label={`${of}, program, counted from 0`}
          max={HIGHEST_BANK}
          value={slot}
          save={(n) => save({ ...act, slot: n })}
        />
      )}
      {typeof slot === 'object' && (
        <>
          <span className="soft">place</span>
          <Numbered
            label={`${of}, place in the bank`}
            min={1}
            value={slot.plus + 1}
            save={(n) => save({ ...act, slot: { ...slot, plus: n - 1 } })}
          />
          <span className="soft">of</span>
          <Numbered
            label={`${of}, places in a bank`}
            min={1}
            value={slot.size}
            save={(n) => save({ ...act, slot: { ...slot, size: n } })}
          />
        </>
      )}
    </span>
  );
};

const asValue = (device: Device, control: string, text: string): Value =>
  positionsOf(device, control).find((v) => String(v) === text) ?? (Number.isNaN(Number(text)) ? text : Number(text));

const SetFields = ({ device, of, act, save }: OfAct<Extract<Act, { control: string }>>) => {
  const positions = positionsOf(device, act.control).map(String);
  const wrong = (text: string): Result<never, readonly Refusal[]> =>
    refuse([
      {
        code: 'act',
        where: '',
        wrong: `"${text.slice(0, 30)}" cannot be read.`,
        would: `Use ${positions.join(', ') || 'a number'}.`,
      },
    ]);
  const listOf = (text: string): readonly Value[] => {
    const words = text.split(',').map((w) => w.trim());
    return words.every((w) => positions.length === 0 || positions.includes(w))
      ? words.map((w) => asValue(device, act.control, w))
      : [];
  };
  const field = (label: string, text: string, read: (text: string) => Act | undefined) => (
    <TypedText
      most={LONGEST.value}
      label={`${of}, ${label}`}
      text={text}
      read={(typed) => {
        const next = read(typed);
        if (!next) return wrong(typed);
        save(next);
        return ok(next);
      }}
    />
  );
  return (
    <span className="act-detail">
      <Choice
        aria-label={`${of}, control`}
        data={device.controls.map((c) => ({ value: c.id, label: c.name ?? c.id }))}
        value={act.control}
        choose={(control) => save(onOther(device, act, control))}
      />
      {'set' in act &&
        (positions.length ? (
          <Choice
            aria-label={`${of}, position`}
            data={positions}
            value={String(act.set)}
            choose={(text) => save({ ...act, set: asValue(device, act.control, text) })}
          />
        ) : (
          field('value', String(act.set), (text) => ({ ...act, set: asValue(device, act.control, text.trim()) }))
        ))}
      {'toggle' in act &&
        field('between', act.toggle.join(', '), (text) => {
          const [one, other, ...more] = listOf(text);
          return one !== undefined && other !== undefined && !more.length
            ? { ...act, toggle: [one, other] }
            : undefined;
        })}
      {'step' in act &&
        field('through', act.step.join(', '), (text) => {
          const step = listOf(text);
          return step.length ? { ...act, step } : undefined;
        })}
      {'scale' in act &&
        field('from and to', act.scale.join(' to '), (text) => {
          const found = /^(-?[\d.]+)\s*(?:to|\.\.)\s*(-?[\d.]+)$/.exec(text.trim());
          return found ? { ...act, scale: [Number(found[1]), Number(found[2])] } : undefined;
        })}
      {'map' in act &&
        field('ranges', act.map.map(([a, b, v]) => `${a} to ${b} ${v}`).join(', '), (text) => {
          const rows = text.split(',').map((r) => /^\s*(\d+)\s*to\s*(\d+)\s+(.+?)\s*$/.exec(r));
          return rows.every((r) => r !== null)
            ? {
                ...act,
                map: rows.map((r) => [Number(r[1]), Number(r[2]), asValue(device, act.control, r[3] ?? '')] as const),
              }
            : undefined;
        })}
    </span>
  );
};

/** The same act on another control, with values that this one has. */
const onOther = (device: Device, act: Act, control: string): Act => {
  const only = { ...device, controls: device.controls.filter((c) => c.id === control) };
  return newAct(only, actKind(act)) ?? newAct(only, 'set') ?? newAct(only, 'scale') ?? act;
};
