import { judge, type Judgement } from '../../checks/settle.js';
import type { Hookup } from '../../rig/hookup.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { anatomy, type Anatomy } from '../../signal/graph/anatomy.js';
import { controlWiring, type ControlWiring } from '../../signal/control/reach.js';
import { pluggedBoxes, type Bearings } from '../../recall/actuate/bearings.js';
import { dialsOf, type DialsOf } from '../../dials/dial-cards.js';
import { compile, type Compilation } from '../../recall/actuate/compile.js';
import { unaffected, type CompileGround } from './unaffected.js';
import { groundsOf, type Grounds } from '../../recall/intend/intend.js';
import { model, type Modelled } from '../../recall/model/model.js';
import { ModelMemory } from '../../recall/model/model-memory.js';
import { prove, ProofMemory, USUAL_BUDGET, type Verdict } from '../../prover/prove.js';
import { sparing } from '../../recall/verdict/spared.js';
import { soundVerdicts, type SoundVerdict } from '../../recall/verdict/sound-verdict.js';
import { wayFinder, type WayFinder } from '../../recall/actuate/ways.js';

/** What every step starts from. */
export interface Given {
  readonly rig: Rig;
  /** As it was when what is heard of it changed last. */
  readonly hookup: Hookup;
  readonly about: Rig['parts']['about'];
  /** Where its boxes stand now. */
  readonly place: Hookup['place'];
  readonly devices: Rig['parts']['device'];
  readonly programs: Rig['parts']['program'];
  readonly cables: Rig['parts']['cable'];
  readonly sounds: Rig['parts']['sound'];
  readonly moves: Rig['parts']['move'];
  readonly songs: Rig['parts']['song'];
  readonly setLists: Rig['parts']['setList'];
  readonly engagements: Rig['parts']['engagement'];
  readonly acceptances: Rig['parts']['acceptance'];
  readonly packCases: Rig['parts']['packCase'];
  readonly dialCards: Rig['parts']['dialCard'];
}

export interface Results {
  readonly anatomy: Anatomy;
  readonly control: ControlWiring;
  readonly grounds: Grounds;
  readonly finder: WayFinder;
  /** Before it is known which hand moves nobody has to make. */
  readonly compiled: Compilation;
  readonly compilation: Compilation;
  readonly modelled: Modelled;
  /** What hands turn that no memory holds. */
  readonly dials: DialsOf;
  /** What the proof says of each sound's recall. */
  readonly verdicts: ReadonlyMap<string, Verdict>;
  /** What a player will hear of each sound, and what has to be done for it. */
  readonly answers: ReadonlyMap<Id<'sound'>, SoundVerdict>;
  readonly judgement: Judgement;
}

type Inputs = Given & Results;

export interface Step<K extends keyof Results = keyof Results> {
  readonly makes: K;
  /** It is carried out again only when one of these is another than last time. */
  readonly needs: readonly (keyof Inputs)[];
  readonly run: (inputs: Inputs, keep: Keep) => Results[K];
}

/** What steps carry over from one revision to the next so that an edit costs only what it touches. */
export class Keep {
  readonly model = new ModelMemory();
  readonly proof = new ProofMemory();
  readonly spared = new ProofMemory();
  ground: CompileGround | undefined;
}

const step = <K extends keyof Results>(makes: K, needs: readonly (keyof Inputs)[], run: Step<K>['run']): Step => ({
  makes,
  needs,
  run,
});

/** The table of derivation, in order: each step with the inputs it needs. */
export const STEPS: readonly Step[] = [
  step('anatomy', ['devices', 'cables', 'hookup'], ({ rig, hookup }) => anatomy(rig, hookup)),
  step('control', ['devices', 'cables', 'hookup'], ({ rig, hookup }) => controlWiring(rig, hookup)),
  step('grounds', ['devices', 'hookup'], ({ rig, hookup }) => groundsOf(rig, hookup)),
  step('finder', ['devices', 'control', 'grounds'], ({ rig, control, grounds }) =>
    wayFinder(rig, control, (r) => grounds.resting.get(r)),
  ),
  step('compiled', ['anatomy', 'finder', 'programs', 'sounds', 'moves', 'songs'], (inputs, keep) => {
    const { rig, hookup, control, grounds, finder } = inputs;
    const bearings: Bearings = { rig, hookup, anatomy: inputs.anatomy, control, grounds, finder };
    const ground: CompileGround = {
      anatomy: inputs.anatomy,
      finder,
      programs: inputs.programs,
      moves: inputs.moves,
      sounds: inputs.sounds,
      songs: inputs.songs,
    };
    const compiled = compile(bearings, unaffected(keep.ground, ground));
    keep.ground = { ...ground, compiled: compiled.sounds };
    return compiled;
  }),
  step('modelled', ['compiled'], ({ compiled }, keep) => model(compiled, keep.model)),
  step('compilation', ['compiled', 'modelled'], ({ compiled, modelled }, keep) =>
    sparing(compiled, modelled, keep.spared),
  ),
  step('verdicts', ['modelled'], ({ modelled }, keep) => prove(modelled.system, USUAL_BUDGET, keep.proof)),
  step('dials', ['compilation', 'dialCards'], ({ rig, hookup, anatomy: here, compilation }) =>
    dialsOf(rig, hookup.id, (sound, device) => {
      const stages = [...(compilation.sounds.get(sound)?.trace.stages ?? [])].filter(
        ([stage]) => splitRef(stage).device === device,
      );
      return stages.length ? stages.some(([, is]) => is === 'in') : pluggedBoxes(here).has(device);
    }),
  ),
  step('answers', ['verdicts', 'compilation', 'dials'], ({ compilation, modelled, verdicts, dials }) =>
    soundVerdicts(compilation, modelled, verdicts, dials.moves),
  ),
  step(
    'judgement',
    ['verdicts', 'compilation', 'dials', 'acceptances', 'setLists', 'engagements', 'about', 'place', 'packCases'],
    ({ rig, hookup, compilation, modelled, verdicts, dials }) =>
      judge({ rig, hookup: thePart(rig, hookup.id), compilation, modelled, verdicts, dials }),
  ),
];
