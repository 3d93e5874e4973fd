import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { proveRig, replayAll } from '../../testing/walk.js';
import { readRigFile } from '../formats/rig-file.js';
import { all } from '../rig/rig.js';
import { handMoves } from './actuate/compile.js';

interface Case {
  readonly file: string;
  /** By the name of the sound. */
  readonly sounds: Readonly<Record<string, 'proved' | 'not proved'>>;
  readonly family: string;
  readonly why: string;
}

const FOLDER = join(__dirname, '../../testing/reference/gear');
const read = (file: string): string => readFileSync(join(FOLDER, file), 'utf8');
const { cases } = JSON.parse(read('index.json')) as { readonly cases: readonly Case[] };

/**
 * Found elsewhere, twice: by reasoning from the MIDI 1.0 specification, and by a simulator that plays real bytes and
 * shares no code with this one.
 */
describe.each([...new Set(cases.map((c) => c.family))])('%s', (family) => {
  test.each(cases.filter((c) => c.family === family).map((c) => [c.file.replace('.json', ''), c] as const))(
    '%s',
    (_, { file, sounds, why }) => {
      const opened = readRigFile(read(file));
      if (!opened.ok) {
        expect([why, Object.values(sounds)]).toEqual([why, ['not proved']]);
        return;
      }
      const rig = opened.value;
      const proved = proveRig(rig, all(rig, 'hookup')[0]!);
      const said = Object.fromEntries(
        Object.keys(sounds).map((name) => {
          const sound = all(rig, 'sound').find((s) => s.name === name)!;
          return [
            name,
            proved.verdicts.get(sound.id)!.is === 'proved' && handMoves(proved.compilation, sound.id).length === 0
              ? 'proved'
              : 'not proved',
          ];
        }),
      );
      expect([why, said]).toEqual([why, sounds]);
      expect([why, replayAll(proved).contradictions]).toEqual([why, []]);
    },
  );
});
