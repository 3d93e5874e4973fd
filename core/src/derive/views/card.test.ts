import { DEMO_RIGS } from '../../demo/rigs.js';
import { newRig } from '../../rig/rig.js';
import { headline } from '../../recall/words/verdict-words.js';
import { deriveOnce } from '../steps/deriver.js';
import { cardOf } from './card.js';
import { viewOf } from './view.js';

test.each(DEMO_RIGS.map((r) => [r.id, r.make()] as const))('%s: its card says what its rooms say', (_, rig) => {
  const card = cardOf(rig);
  const [hookup] = rig.parts.hookup.keys();
  const view = viewOf(deriveOnce(rig, hookup!)!);
  expect(card.stands && headline(card.stands.tally, card.stands.limbs)).toBe(headline(view.tally, view.limbs));
  expect([card.boxes, card.sounds, card.hookups.length]).toEqual([
    rig.parts.device.size,
    rig.parts.sound.size,
    rig.parts.hookup.size,
  ]);
  expect(card.run.length).toBeGreaterThan(0);
  expect([...rig.parts.sound.values()].map((s) => s.name)).toContain(card.drawn);
});

test('a rig that was just begun has nothing to judge', () => {
  const card = cardOf(newRig('Empty'));
  expect(card).toMatchObject({ boxes: 0, sounds: 0, run: [], hookups: ['Main'] });
  expect(card.stands?.tally.sounds).toBe(0);
});
