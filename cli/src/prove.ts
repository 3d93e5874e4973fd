import { prove, type Verdict } from '@yunta/core/recall/proof/prove';
import { sayFootsteps, slotText, controlText, valueText } from '@yunta/core/recall/words';
import { tally } from '@yunta/core/recall/proof/summary';
import type { Ref } from '@yunta/core/rig/ids';
import { soundsInOrder } from '@yunta/core/rig/rig';
import { UserError, type Words } from './arguments.js';
import { deriveFile, readSystems } from './read.js';
import { json, print } from './say.js';

/** Verdict of every sound, with footsteps. @returns 0 all proved, 1 not all */
export const proveVerb = (words: Words): number => (words.options.system ? proveSystems(words) : proveRig(words));

const verdictJson = (verdict: Verdict) => {
  if (verdict.is === 'proved') return { verdict: 'proved' };
  if (verdict.is === 'undecided') return { verdict: 'undecided', because: verdict.because };
  const shortest = verdict.wrong.find((w) => w.length === verdict.length)!;
  return { verdict: 'broken', length: verdict.length, variables: Object.fromEntries(verdict.wrong.map((w) => [w.variable, w.length])), example: shortest.example() };
};

const proveSystems = ({ alone, options }: Words): number => {
  const systems = readSystems(alone[0]);
  let worst = 0;
  const cases = systems.map((system, i) => {
    const verdicts = prove(system);
    if ([...verdicts.values()].some((v) => v.is !== 'proved')) worst = 1;
    return { id: system.id ?? String(i), sounds: Object.fromEntries([...verdicts].map(([id, v]) => [id, verdictJson(v)])) };
  });
  if (options.json) json({ cases });
  else {
    for (const c of cases) {
      for (const [id, v] of Object.entries(c.sounds)) print(`${c.id} ${id}: ${v.verdict}${'length' in v ? `, ${v.length} steps: ${v.example?.events.join(', ')}` : ''}`);
    }
  }
  return worst;
};

const proveRig = (words: Words): number => {
  const d = deriveFile(words);
  const { sounds, proved } = tally(d.verdicts);
  const byHand = (id: `sound:${string}`) => d.compilation.sounds.get(id)!.hand.filter((h) => !d.compilation.leftAlone.has(h.control));
  const all = soundsInOrder(d.rig);
  if (all.length === 0) throw new UserError('This rig has no sounds to prove.');
  if (words.options.json) {
    json({
      rig: d.rig.parts.about.get('about:rig')?.name, hookup: d.hookup.name,
      granted: d.modelled.granted,
      sounds: Object.fromEntries(all.map((s) => [s.id, { name: s.name, ...verdictJson(d.verdicts.get(s.id)!), byHand: byHand(s.id) }])),
    });
  } else {
    print(`${proved} of ${sounds} sounds proved in ${d.hookup.name}.`);
    for (const sound of all) {
      const verdict = d.verdicts.get(sound.id)!;
      const hands = byHand(sound.id);
      print(`${verdict.is === 'proved' ? '  ' : '≠ '}${slotText(d.rig, sound).padEnd(4)} ${sound.name}: ${verdict.is}${hands.length ? `, by hand: ${hands.map((h) => `${controlText(d.rig, h.control)} ${valueText(d.rig, h.control, h.value)}`).join(', ')}` : ''}`);
      if (verdict.is === 'undecided') print(`       ${verdict.because}`);
      if (verdict.is === 'broken') {
        const wrong = verdict.wrong.find((w) => w.length === verdict.length)!;
        const control = wrong.variable as Ref;
        sayFootsteps(d.rig, d.modelled, wrong.example(), control).forEach((s, i) => print(`       ${i ? `${i}.` : '  '} ${s.text}: ${controlText(d.rig, control)} ${s.value}`));
        print(`          wanted ${valueText(d.rig, control, wrong.wanted)}`);
      }
    }
    if (d.modelled.granted.length) print(`Taken for granted: ${d.modelled.granted.map((g) => `${controlText(d.rig, g.control)} ${valueText(d.rig, g.control, g.value)}`).join(', ')}.`);
  }
  return proved === sounds ? 0 : 1;
};
