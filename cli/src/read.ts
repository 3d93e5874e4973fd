import { hasFields } from '@yunta/core/known/keys';
import { saidBy } from '@yunta/core/known/said-by';
import { deriveOnce, hookupNamed, type Derived } from '@yunta/core/derive/steps/deriver';
import { readRigFile } from '@yunta/core/formats/rig-file';
import type { RecallSystem } from '@yunta/core/prover/system';
import { wrongInSystem } from '@yunta/core/prover/system';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { UserError, type CommandWords } from './arguments.js';
import { surely } from '@yunta/core/known/the';

export const textOf = (file: string | undefined): string => {
  if (!file) throw new UserError('Name a file.');
  try {
    return readFileSync(resolve(process.env.YUNTA_CWD ?? process.cwd(), file), 'utf8');
  } catch (e) {
    throw new UserError(`${file} cannot be read: ${saidBy(e)}`);
  }
};

/** Everything that follows from a rig file in the hook-up that was named, or its first. */
export const deriveFile = ({ alone, options }: CommandWords): Derived => {
  const read = readRigFile(textOf(alone[0]));
  if (!read.ok) throw new UserError(`${alone[0]}: ${read.error.slice(0, 3).map(sayRefusal).join(' ')}`);
  const wanted = typeof options.hookup === 'string' ? options.hookup : undefined;
  const hookup = hookupNamed(read.value, wanted);
  const names = all(read.value, 'hookup')
    .map((h) => h.name)
    .join(', ');
  if (!hookup)
    throw new UserError(
      wanted ? `There is no hook-up "${wanted}"; this rig has ${names || 'none'}.` : 'This rig has no hook-up.',
    );
  return surely(deriveOnce(read.value, hookup));
};

export const soundNamed = (d: Derived, name: string | true | undefined): Sound => {
  if (typeof name !== 'string') throw new UserError('Name a sound with --sound NAME.');
  const found = soundsInOrder(d.rig).find(
    (s) => s.id === name || s.id === `sound:${name}` || s.name.toLowerCase() === name.toLowerCase(),
  );
  if (!found)
    throw new UserError(
      `There is no sound "${name}"; this rig has ${
        soundsInOrder(d.rig)
          .map((s) => s.name)
          .join(', ') || 'none'
      }.`,
    );
  return found;
};

/** A text as the JSON that it has to be. */
export const jsonIn = (text: string, file: string): unknown => {
  try {
    return JSON.parse(text);
  } catch (e) {
    throw new UserError(`${file} is not JSON: ${saidBy(e)}`);
  }
};

/** Bare recall systems: one, or `{ "cases": [...] }`. */
export const readSystems = (file: string | undefined): readonly RecallSystem[] => {
  const data = jsonIn(textOf(file), file ?? '');
  const systems = ((hasFields(data) && data.cases) || [data]) as RecallSystem[];
  systems.forEach((system, i) => {
    const whole =
      system &&
      typeof system === 'object' &&
      Array.isArray(system.variables) &&
      Array.isArray(system.events) &&
      Array.isArray(system.sounds);
    const wrong = whole ? wrongInSystem(system) : ['it needs the lists variables, events and sounds'];
    if (wrong.length) throw new UserError(`${file}, system ${system?.id ?? i}: ${wrong[0]}`);
  });
  return systems;
};
