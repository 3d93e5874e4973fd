import { benchView } from '../src/derive/views/bench-view.js';
import { deriveOnce, type Derived } from '../src/derive/steps/deriver.js';
import { setUpBench, takeStep } from '../src/derive/play/play.js';
import { songHands } from '../src/derive/views/songs.js';
import { soundDetail } from '../src/derive/views/sound-detail.js';
import { standingTests } from '../src/derive/play/standing-tests.js';
import { termsOf } from '../src/derive/views/terms.js';
import { typeIn } from '../src/derive/views/type-in.js';
import { soundRun, soundTrace, storedView, viewOf } from '../src/derive/views/view.js';
import { gainLadder, gainStages } from '../src/electric/gain.js';
import { levelsAt } from '../src/electric/levels/along.js';
import { all, soundsInOrder, type Rig } from '../src/rig/rig.js';
import { cellOf, sheetColumns } from '../src/sheets/sound-sheet.js';
import { SONG_COLUMNS, songCell } from '../src/sheets/song-sheet.js';
import { programCell, programColumns } from '../src/sheets/program-sheet.js';
import { mapOf } from '../src/signal/drawing/map.js';
import { Random } from './random.js';
import { randomPowerUp } from './walk.js';

const ofSounds = (rig: Rig, d: Derived): void => {
  const columns = sheetColumns(rig, d.anatomy);
  for (const sound of soundsInOrder(rig)) {
    soundDetail(d, sound.id);
    soundRun(d, sound.id);
    storedView(d, sound.id);
    levelsAt(rig, soundTrace(d, sound.id));
    columns.forEach((column) => cellOf(rig, sound, column, d.hookup.id));
  }
};

const onTheBench = (d: Derived): void => {
  const bench = setUpBench(d, randomPowerUp(d, new Random(1)));
  for (const step of [...d.modelled.steps.values()].slice(0, 40)) takeStep(d, bench, step);
  benchView(d, bench);
};

/**
 * All that screens and command line ask of a rig, in each of its hook-ups: for laws that it comes to an end.
 * @throws what any of it throws, also what only one check could not do
 */
export const everythingOf = (rig: Rig): void => {
  for (const { id } of all(rig, 'hookup')) {
    const d = deriveOnce(rig, id)!;
    const [fault] = d.judgement.faults;
    if (fault) throw new Error(`the check ${fault.code}: ${fault.message}`);
    viewOf(d);
    mapOf(rig, d.anatomy);
    ofSounds(rig, d);
    gainLadder(rig, gainStages(rig, d.anatomy));
    typeIn(d);
    termsOf(d);
    songHands(d);
    standingTests(d);
    onTheBench(d);
  }
  for (const song of all(rig, 'song')) SONG_COLUMNS.forEach((column) => songCell(rig, song, column, ''));
  for (const device of all(rig, 'device')) {
    for (const memory of device.memories) {
      const columns = programColumns(device, memory);
      for (const program of all(rig, 'program'))
        if (program.device === device.id && program.memory === memory.id)
          columns.forEach((column) => programCell(program, column));
    }
  }
};
