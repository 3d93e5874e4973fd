import { prove, type Verdict } from '@yunta/core/prover/prove';
import type { SoundVerdict } from '@yunta/core/recall/verdict/sound-verdict';
import { headline, SIGNS, verdictText } from '@yunta/core/recall/words/verdict-words';
import { grantedText } from '@yunta/core/recall/words/words';
import { viewOf } from '@yunta/core/derive/views/view';
import { soundsInOrder } from '@yunta/core/rig/rig';
import { UserError, type CommandWords } from './arguments.js';
import { deriveFile, readSystems } from './read.js';
import { json, print } from './say.js';
import { surely } from '@yunta/core/known/the';

/** Verdict of every sound, with footsteps. @returns 0 all proved, 1 not all */
export const proveVerb = (words: CommandWords): number =>
  words.options.system ? proveSystems(words) : proveRig(words);

const verdictJson = (verdict: Verdict) => {
  if (verdict.is === 'proved') return { verdict: 'proved' };
  if (verdict.is === 'undecided') return { verdict: 'undecided', because: verdict.because };
  const shortest = surely(verdict.wrong.find((w) => w.length === verdict.length));
  return {
    verdict: 'broken',
    length: verdict.length,
    variables: Object.fromEntries(verdict.wrong.map((w) => [w.variable, w.length])),
    example: shortest.example(),
  };
};

const proveSystems = ({ alone, options }: CommandWords): number => {
  const systems = readSystems(alone[0]);
  let worst = 0;
  const cases = systems.map((system, i) => {
    const verdicts = prove(system);
    if ([...verdicts.values()].some((v) => v.is !== 'proved')) worst = 1;
    return {
      id: system.id ?? String(i),
      sounds: Object.fromEntries([...verdicts].map(([id, v]) => [id, verdictJson(v)])),
    };
  });
  if (options.json) json({ cases });
  else {
    for (const c of cases) {
      for (const [id, v] of Object.entries(c.sounds))
        print(
          `${c.id} ${id}: ${v.verdict}${'length' in v ? `, ${v.length} steps: ${v.example?.events.join(', ')}` : ''}`,
        );
    }
  }
  return worst;
};

/**
 * Verdict of every sound of a rig file.
 * @returns 0 when all are proved, with `--allow-hands` also when the rest is left to hands; 1 otherwise
 */
const proveRig = (words: CommandWords): number => {
  const d = deriveFile(words);
  const all = soundsInOrder(d.rig);
  if (all.length === 0) throw new UserError('This rig has no sounds to prove.');
  const { sounds, tally, limbs } = viewOf(d);
  if (words.options.json) {
    json({
      rig: d.rig.parts.about.get('about:rig')?.name,
      hookup: d.hookup.name,
      granted: d.modelled.granted,
      sounds: Object.fromEntries(
        sounds.map((s) => [
          s.id,
          { name: s.name, ...answerJson(surely(d.answers.get(s.id))), ...(s.because ? { why: s.because } : {}) },
        ]),
      ),
    });
  } else {
    print(`${headline(tally, limbs)} Hook-up ${d.hookup.name}.`);
    for (const s of sounds) {
      print(`${SIGNS[s.verdict]} ${s.slot.padEnd(4)} ${s.name}: ${verdictText(s)}`);
      if (s.because && (s.verdict === 'cannot sound' || s.verdict === 'undecided')) print(`       ${s.because}`);
      if (s.byFoot.length) print(`       by foot: ${s.byFoot.join(', ')}`);
      if (s.byHand.length) print(`       by hand: ${s.byHand.join(', ')}`);
      const wrong = s.shortest;
      if (s.verdict === 'broken' && wrong) {
        wrong.steps.forEach((step, i) =>
          print(`       ${i ? `${i}.` : '  '} ${step.text}: ${wrong.text} ${step.value}`),
        );
        print(`          wanted ${wrong.wanted}`);
      }
    }
    if (d.modelled.granted.length)
      print(`Taken for granted: ${d.modelled.granted.map((g) => grantedText(d.rig, g)).join('; ')}.`);
  }
  const enough = tally.proved + (words.options['allow-hands'] ? tally['left to hands'] : 0);
  return enough === tally.sounds ? 0 : 1;
};

/** The worst that holds of a sound, with what the proof and the hands have to say besides. */
const answerJson = ({ is, proof, hands, isCalled }: SoundVerdict) => ({
  ...(proof.is === 'broken' ? verdictJson(proof) : {}),
  verdict: is,
  called: isCalled,
  hands,
});
