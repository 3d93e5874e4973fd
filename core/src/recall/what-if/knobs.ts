import { theId } from '../../rig/ids.js';
import { knobEvents } from '../model/happenings.js';
import type { Compilation } from '../actuate/compile.js';
import type { Modelled } from '../model/model.js';
import { Influence, wantedIn } from './reach.js';
import type { Question } from './question.js';
import { theFirst } from '../../known/the.js';

/** Somebody turns a knob of any box: does every sound bring it back? */
export const turnedKnob = (c: Compilation, m: Modelled): Question => {
  const turns = knobEvents(c.bearings, m.said.domains).filter(
    ([event]) => !m.steps.has(event.id) && m.system.variables.some((v) => v.id === theFirst(event.acts).variable),
  );
  const turned = new Influence(m.system, wantedIn(m.system.sounds)).from(
    turns.map(([event]) => theFirst(event.acts).variable),
  );
  return {
    about: 'turned knob',
    ground: m.ground,
    systems: [
      {
        ...m.system,
        events: [...m.system.events, ...turns.map(([event]) => event)],
        sounds: m.system.sounds.map((s) => ({ ...s, wants: s.wants.filter((w) => turned.has(w.variable)) })),
      },
    ],
    steps: new Map([...m.steps, ...turns.map(([event, step]) => [event.id, step] as const)]),
    asked: new Map(m.system.sounds.map((s) => [s.id, { sound: theId('sound', s.id) }])),
  };
};
