import { Button, Select } from '@mantine/core';
import type { Caller } from '@yunta/core/edits/calls';
import {
  bankName,
  bankSize,
  banksOf,
  broughtInStep,
  mirrorBank,
  mirroredBanks,
  outOfStep,
} from '@yunta/core/edits/mirror';
import { controlText, valueText } from '@yunta/core/recall/words/words';
import { ref, theRef, type Ref } from '@yunta/core/rig/ids';
import { all, type Rig } from '@yunta/core/rig/rig';
import type { Want } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';

/** What may be different in a mirrored bank: a choice of a box, such as its input. The controller's own come first. */
const choicesOf = (
  rig: Rig,
  caller: Caller,
): readonly { readonly control: Ref; readonly values: readonly string[] }[] =>
  [...all(rig, 'device')]
    .sort((a, b) => Number(b.id === caller.device) - Number(a.id === caller.device))
    .flatMap((d) =>
      d.controls.flatMap((c) =>
        c.use === 'sound' && Array.isArray(c.domain) && c.domain.length > 1
          ? [{ control: ref(d.id, c.id), values: c.domain.map(String) }]
          : [],
      ),
    );

/** The sounds of a bank once more in another, such as for the cable in place of the wireless; both are kept in step. */
export const Mirror = ({ caller }: { caller: Caller }) => {
  const { rig } = useRig();
  const size = bankSize(rig, caller);
  const mirrors = mirroredBanks(rig).filter((b) => b.device === caller.device && b.memory === caller.memory);
  if (!size) return null;
  return (
    <section className="card">
      <h2>Mirrored banks</h2>
      <p className="soft">
        The sounds of one bank once more in another, on the same switches: for the cable in place of the wireless, or
        for another bass. Each follows its original in all that you do not say of it itself.
      </p>
      {mirrors.map((bank) => (
        <InStep key={`${bank.from} ${bank.to}`} bank={bank} />
      ))}
      <NewMirror key={mirrors.length} caller={caller} size={size} />
    </section>
  );
};

const InStep = ({ bank }: { bank: ReturnType<typeof mirroredBanks>[number] }) => {
  const { rig, edit } = useRig();
  const apart = outOfStep(rig, bank);
  const cures = apart.flatMap((a) => a.cure ?? []);
  const named = `${bankName(rig, bank, bank.to)} mirrors ${bankName(rig, bank, bank.from)}`;
  return (
    <p className="sheet-tools">
      <strong>{named}</strong>
      {apart.length === 0 ? (
        <span>in step</span>
      ) : (
        <span>
          out of step: {[...new Set(apart.map((a) => `“${a.sound.name}”`))].join(', ')}
          {cures.length < apart.length && '; another sound stands on a switch that is needed'}
        </span>
      )}
      {cures.length > 0 && (
        <Button size="compact-xs" onClick={() => edit(broughtInStep(rig, bank), `${named}: in step`)}>
          Bring in step
        </Button>
      )}
    </p>
  );
};

const NewMirror = ({ caller, size }: { caller: Caller; size: number }) => {
  const { rig, edit } = useRig();
  const { used, free } = banksOf(rig, caller);
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const [what, setWhat] = useState<string | null>(null);
  const [is, setIs] = useState<string | null>(null);
  const [wrong, setWrong] = useState('');
  const choices = choicesOf(rig, caller);
  const chosen = choices.find((c) => c.control === what);
  const banks = (of: readonly number[]) => of.map((b) => ({ value: String(b), label: bankName(rig, caller, b) }));
  const source = Number(from ?? used[0] ?? 0);
  const target = Number(to ?? free[0] ?? 0);
  if (used.length === 0 || free.length === 0) return null;
  const make = (): void => {
    const wants: Want[] = what && is ? [{ control: theRef(what), is }] : [];
    const bank = { device: caller.device, memory: caller.memory, from: source, to: target, size };
    const made = mirrorBank(rig, bank, wants, () => newPartId('sound'));
    if (made === 'taken') return setWrong('Other sounds stand in that bank. Choose an empty one.');
    const refused = edit(made, `${bankName(rig, caller, target)} mirrors ${bankName(rig, caller, source)}`);
    setWrong(refused[0]?.wrong ?? '');
  };
  return (
    <>
      <div className="sheet-tools act-card">
        <Select
          size="xs"
          w={120}
          label="Mirror"
          allowDeselect={false}
          data={banks(used)}
          value={String(source)}
          onChange={setFrom}
        />
        <Select
          size="xs"
          w={120}
          label="in"
          allowDeselect={false}
          data={banks(free)}
          value={String(target)}
          onChange={setTo}
        />
        <Select
          size="xs"
          w={220}
          label="What is otherwise there"
          placeholder="nothing yet"
          clearable
          searchable
          data={choices.map((c) => ({ value: c.control, label: controlText(rig, c.control) }))}
          value={what}
          onChange={(v) => {
            setWhat(v);
            setIs(null);
          }}
        />
        {chosen && (
          <Select
            size="xs"
            w={150}
            label="is there"
            data={chosen.values.map((v) => ({ value: v, label: valueText(rig, chosen.control, v) }))}
            value={is}
            onChange={setIs}
          />
        )}
        <Button size="xs" variant="default" onClick={make} disabled={what !== null && is === null}>
          Mirror the bank
        </Button>
      </div>
      {wrong && (
        <p className="broken" role="alert">
          {wrong}
        </p>
      )}
    </>
  );
};
