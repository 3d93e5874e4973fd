import { presetBox, type Inside } from '../src/catalogue/preset-box.js';
import { apply } from '../src/change/apply.js';
import type { Device, Stage } from '../src/rig/device.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import { ref, type Id, type Ref } from '../src/rig/ids.js';
import { ABOUT, emptyRig, type Part, type Rig } from '../src/rig/rig.js';
import type { Call, Sound, Want } from '../src/rig/sound.js';
import { makeDevice } from '../src/catalogue/make.js';
import { Random } from './random.js';

export interface ModellerSize {
  readonly blocks: number;
  readonly presets: number;
  readonly scenes: number;
}

const STAGES: readonly Stage[] = ['eq', 'delay', 'overdrive', 'modulation', 'reverb', 'compressor'];
const HOOKUP: Id<'hookup'> = 'hookup:main';
const M: Id<'device'> = 'device:m';

/** A guitar, one modeller as large as asked for, and a desk; a sound in every scene of every preset. */
export const giantModeller = ({
  blocks,
  presets,
  scenes,
}: ModellerSize): { readonly rig: Rig; readonly hookup: Hookup; readonly amounts: number } => {
  const r = new Random(1);
  const inside = Array.from({ length: blocks }, (_, i): Inside => ({
    block: `b${i}`,
    stage: STAGES[i % STAGES.length]!,
  }));
  const { box } = presetBox({
    key: 'giant-modeller',
    says: ['Giant modeller'],
    code: 'M',
    channel: 1,
    inside,
    xlr: false,
    gapMs: 40,
    letters: 'ABCD',
    ...(scenes > 1 ? { scenes } : {}),
    assigns: { switches: ['E', 'F'], things: 8 },
    commands: true,
  });
  // No box answers to more control changes than there are.
  const actuators = box.actuators.filter(({ by }) => !('midi' in by) || by.midi !== 'cc' || by.number < 120);
  const modeller: Device = { kind: 'device', id: M, ...box, actuators };
  const amounts = modeller.controls.filter((c) => 'min' in c.domain && c.powerUp === 'loaded').map((c) => c.id);
  const hookup: Hookup = { kind: 'hookup', id: HOOKUP, name: 'Main', settings: {}, hears: [], assumes: [] };
  const lead = (n: number, from: string, to: string): Cable => ({
    kind: 'cable',
    id: `cable:${n}`,
    hookup: HOOKUP,
    ends: [`device:${from}` as Ref, `device:${to}` as Ref],
  });
  const inScenes = new Set(modeller.memories.find((m) => m.inside)?.stores ?? amounts);
  const some = (of: readonly string[]): readonly Want[] =>
    of.filter(() => r.chance(20)).map((id) => ({ control: ref(M, id), is: valueIn(modeller, id, r) }));
  // What no scene stores is said by the preset, alike in all its scenes.
  const ofPreset = Array.from({ length: presets }, () => some(amounts.filter((id) => !inScenes.has(id))));
  const sounds = Array.from({ length: presets * scenes }, (_, i): Sound => {
    const wants: Want[] = inside.flatMap((part) =>
      'block' in part && r.chance(40) ? [{ stage: ref(M, part.block), is: 'in' as const }] : [],
    );
    const said = [...some(amounts.filter((id) => inScenes.has(id))), ...ofPreset[Math.floor(i / scenes)]!];
    const calls: Call[] = [
      { device: M, memory: 'presets', slot: Math.floor(i / scenes) },
      ...(scenes > 1 ? [{ device: M, memory: 'scenes', slot: i % scenes }] : []),
    ];
    return {
      kind: 'sound',
      id: `sound:s${i}`,
      name: `Sound ${i}`,
      role: 'other',
      at: i + 1,
      wants: [...wants, ...said],
      calls,
    };
  });
  const parts: Part[] = [
    { kind: 'about', id: ABOUT, name: 'Giant modeller', notes: '' },
    { ...makeDevice('single-coil', 'device:g'), at: 1 },
    { ...modeller, at: 2 },
    { ...makeDevice('desk', 'device:d'), at: 3 },
    hookup,
    lead(1, 'g.out', 'm.in'),
    lead(2, 'm.out-l', 'd.ch1'),
    lead(3, 'm.out-r', 'd.ch2'),
    ...sounds,
  ];
  const built = apply(emptyRig(), { put: parts, remove: [] });
  if (!built.ok) throw new Error(`giant modeller: ${JSON.stringify(built.error[0])}`);
  return { rig: built.value.rig, hookup, amounts: amounts.length };
};

const valueIn = (device: Device, id: string, r: Random): number => {
  const domain = device.controls.find((c) => c.id === id)!.domain;
  return 'min' in domain ? r.int(domain.min, domain.max) : 0;
};
