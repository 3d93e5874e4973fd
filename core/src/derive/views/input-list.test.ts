import fc from 'fast-check';
import { often } from '../../../testing/often.js';
import { randomRig } from '../../../testing/random-rig.js';
import { joined } from '../../signal/joined.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { lighthouseSolo } from '../../demo/lighthouse-solo.js';
import { nightMarketBass } from '../../demo/night-market-bass.js';
import { all } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { inputList } from './input-list.js';

describe('the lines into the house', () => {
  test('of a miked cabinet: one line, a microphone, balanced, heard in every sound', () => {
    const lines = inputList(deriveOnce(islandRun(), BALLROOM_ID)!);
    expect(lines).toEqual([
      expect.objectContaining({
        desk: 'Mixing desk',
        line: 'ch1',
        by: 'microphone',
        balanced: true,
        side: 'both added',
      }),
    ]);
    expect(lines[0]).toMatchObject({ silentIn: [], songs: [], phantomOff: false });
  });

  test('of a bass in two: two DI boxes, each by its name; a line that a sound leaves silent says in which songs', () => {
    const rig = nightMarketBass();
    const lines = inputList(deriveOnce(rig, all(rig, 'hookup')[0]!.id)!);
    expect(lines.map(({ line, source, by }) => [line, source, by])).toEqual([
      ['ch1', 'DI box, clean (out)', 'DI box'],
      ['ch2', 'DI box, driven (out)', 'DI box'],
    ]);
    for (const line of lines) if (line.silentIn.length === 0) expect(line.songs).toEqual([]);
  });

  test("a voice and a second player's percussion arrive as well, each said with what it comes through", () => {
    const rig = lighthouseSolo();
    const lines = inputList(deriveOnce(rig, all(rig, 'hookup')[0]!.id)!);
    expect(lines.map(({ by, side, of, loops }) => [by, side, of.join(', '), loops.join(', ')])).toEqual([
      ['microphone', 'mono', 'Single-coil guitar', 'Looper station'],
      ['DI box', 'mono', 'Pickup percussion', 'Looper station'],
      ['microphone', 'mono', 'Microphone', ''],
    ]);
  });

  test('every cable into the house is one line, and a line is heard where its sounds say so', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const { rig, hookup } = randomRig(seed);
        const d = deriveOnce(rig, hookup.id);
        if (!d) return;
        const lines = inputList(d);
        const cables = joined(rig, d.hookup).filter(
          (j) => j.to.jack.kind === 'audio' && j.to.device.ends?.some((e) => e.is === 'house'),
        );
        expect(lines).toHaveLength(cables.length);
        for (const line of lines) {
          expect(line.silentIn.length).toBeLessThan(Math.max(1, d.compilation.sounds.size));
          if (line.side === 'nothing') expect(line.silentIn).toEqual([]);
        }
      }),
      { numRuns: often(30) },
    ));
});
