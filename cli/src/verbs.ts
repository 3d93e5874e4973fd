import { islandRun } from '@yunta/core/demo/island-run';
import type { Derived } from '@yunta/core/derive/steps/deriver';
import { actBytes, soundRun } from '@yunta/core/derive/views/view';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { promela } from '@yunta/core/prover/promela';
import { slotText } from '@yunta/core/recall/words/words';
import { splitRef, type Id } from '@yunta/core/rig/ids';
import { partOf, soundsInOrder } from '@yunta/core/rig/rig';
import { SIDES_TEXT, type Item } from '@yunta/core/signal/drawing/picture';
import type { CommandWords } from './arguments.js';
import { deriveFile, soundNamed } from './read.js';
import { json, print } from './say.js';
import { surely } from '@yunta/core/known/the';

const codeOf = (d: Derived, id: Id<'device'>): string => partOf(d.rig, id)?.code ?? id;

/** The run of a sound as one line: loops in parentheses, what is off or outside in brackets. */
const runText = (d: Derived, items: readonly Item[]): string =>
  items
    .map((item) => {
      switch (item.is) {
        case 'box': {
          const sides = item.sides ? ` ${SIDES_TEXT[item.sides]}` : '';
          return item.stages.some((s) => !s.on)
            ? `[${codeOf(d, item.device)} bypassed${sides}]`
            : `${codeOf(d, item.device)}${sides && ` (${sides.trim()})`}`;
        }
        case 'loop':
          return item.on
            ? `(${runText(d, item.inside)})`
            : item.holds.length
              ? `[${item.holds.map((h) => codeOf(d, h)).join('+')} outside]`
              : '';
        case 'split':
          return `{ ${item.arms.map((arm) => runText(d, arm)).join(' | ')} }`;
        case 'end':
          return `→ ${item.name}${item.sides.length ? ` (${item.sides.join(' and ')})` : ''}`;
      }
    })
    .filter(Boolean)
    .join(' ');

/** The path of a sound, stage by stage, to every output. */
export const traceVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  const sound = soundNamed(d, words.options.sound);
  const compiled = surely(d.compilation.sounds.get(sound.id));
  const run = soundRun(d, sound.id);
  if (words.options.json) {
    json({
      sound: sound.name,
      hookup: d.hookup.name,
      run,
      stages: Object.fromEntries(compiled.trace.stages),
      problems: compiled.problems,
      reaches: compiled.trace.reaches.map((r) => ({ from: r.source.ref, to: r.end.ref, sides: r.sides })),
    });
  } else {
    print(runText(d, run) || 'Silent: no source reaches an end that counts.');
    for (const [stage, state] of compiled.trace.stages)
      print(`  ${state.padEnd(8)} ${codeOf(d, splitRef(stage).device)} ${splitRef(stage).name}`);
  }
  return compiled.problems.length ? 1 : 0;
};

/** All findings. @returns 0 when none is above a note */
export const checkVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  const { findings, faults, remediesOf } = d.judgement;
  const open = findings.filter((f) => !f.accepted);
  if (words.options.json)
    json({
      findings: findings.map((f) => ({
        ...f,
        remedies: remediesOf(f).map(({ id, label, promise, by }) => ({ id, label, promise, by })),
      })),
      faults,
    });
  else {
    for (const f of open)
      print(
        [`${f.severity.padEnd(6)} ${f.code}: ${f.why}`, ...remediesOf(f).map((r) => `→ ${r.label}`)].join('\n       '),
      );
    for (const f of faults) print(`fault  ${f.code}: ${f.message}`);
    if (open.length === 0) print('No findings.');
  }
  return open.some((f) => f.severity !== 'note') ? 1 : 0;
};

/** What every controller stores, with bytes in hex and what each box shows. */
export const compileVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  const stored = soundsInOrder(d.rig).flatMap((sound) =>
    surely(d.compilation.sounds.get(sound.id)).stored.map(({ program, typed, meant }) => ({
      sound: sound.name,
      device: surely(partOf(d.rig, program.device)).name,
      slot: slotText(d.rig, sound),
      typed,
      contents: program.contents,
      messages: program.acts.map((act, i) => ({
        bytes: actBytes(act),
        act,
        for: meant[i] ? `${partOf(d.rig, meant[i].device)?.name}: ${meant[i].text}` : undefined,
      })),
      assigns: program.assigns,
    })),
  );
  if (words.options.json) json({ hookup: d.hookup.name, slots: stored });
  else {
    for (const s of stored) {
      const program = s.contents === 'unplanned' ? {} : s.contents;
      print(`${s.slot.padEnd(4)} ${s.sound} on ${s.device}${s.typed ? ', as typed in' : ''}`);
      print(
        `       ${Object.entries(program)
          .map(([k, v]) => `${k} ${v}`)
          .join(', ')}`,
      );
      for (const m of s.messages) print(`       ${m.bytes.padEnd(24)} ${m.for ?? ''}`);
    }
  }
  return 0;
};

/** The recall system as JSON, or as a Promela model. */
export const systemVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  if (words.options.promela === undefined) json({ id: d.hookup.id, ...d.modelled.system });
  else process.stdout.write(promela(d.modelled.system, soundNamed(d, words.options.promela).id));
  return 0;
};

export const demoVerb = (): number => {
  process.stdout.write(writeRigFile(islandRun()));
  return 0;
};
