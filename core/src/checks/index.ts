import type { Check } from './check.js';
import { cableShort } from './build/cable-short.js';
import { overhang } from './build/overhang.js';
import { overlap } from './build/overlap.js';
import { weight } from './build/weight.js';
import { dryInWet } from './comb/dry-in-wet.js';
import { parallel } from './comb/parallel.js';
import { loop } from './earth/loop.js';
import { noSpare } from './fail/no-spare.js';
import { singlePoint } from './fail/single-point.js';
import { total } from './latency/total.js';
import { clip } from './level/clip.js';
import { instrumentSwap } from './level/instrument-swap.js';
import { mismatch } from './level/mismatch.js';
import { step } from './level/step.js';
import { bypassChain } from './load/bypass-chain.js';
import { treble } from './load/treble.js';
import { homeMade } from './mains/home-made.js';
import { capacity } from './midi/capacity.js';
import { chainLong } from './midi/chain-long.js';
import { crosstalk } from './midi/crosstalk.js';
import { loadGap } from './midi/load-gap.js';
import { numberShift } from './midi/number-shift.js';
import { range } from './midi/range.js';
import { trsType } from './midi/trs-type.js';
import { twice } from './midi/twice.js';
import { unreached } from './midi/unreached.js';
import { floor } from './noise/floor.js';
import { compressorLiftsNoise } from './order/compressor-lifts-noise.js';
import { conflict } from './order/conflict.js';
import { delayIntoGain } from './order/delay-into-gain.js';
import { dirtInLoop } from './order/dirt-in-loop.js';
import { fuzzAfterBuffer } from './order/fuzz-after-buffer.js';
import { gateBeforeNoise } from './order/gate-before-noise.js';
import { gateCutsTails } from './order/gate-cuts-tails.js';
import { noAmpStage } from './order/no-amp-stage.js';
import { noCabSim } from './order/no-cab-sim.js';
import { oddOneOut } from './order/odd-one-out.js';
import { tunerMute } from './order/tuner-mute.js';
import { twoCabSims } from './order/two-cab-sims.js';
import { volumePlace } from './order/volume-place.js';
import { wahSide } from './order/wah-side.js';
import { gap } from './recall/gap.js';
import { knobLeft } from './recall/knob-left.js';
import { handMove } from './recall/hand-move.js';
import { moveLeftOn } from './recall/move-left-on.js';
import { tails } from './recall/tails.js';
import { toggle } from './recall/toggle.js';
import { slotClash } from './recall/slot-clash.js';
import { uncalled } from './recall/uncalled.js';
import { unsaid } from './recall/unsaid.js';
import { undecided } from './recall/undecided.js';
import { unpinned } from './recall/unpinned.js';
import { actBanks } from './set/act-banks.js';
import { fatFoot } from './set/fat-foot.js';
import { mirrorApart } from './set/mirror-apart.js';
import { ringsOn } from './set/rings-on.js';
import { roleMoved } from './set/role-moved.js';
import { slots } from './set/slots.js';
import { stomps } from './set/stomps.js';
import { tempo } from './set/tempo.js';
import { battery } from './supply/battery.js';
import { count } from './supply/count.js';
import { current } from './supply/current.js';
import { polarity } from './supply/polarity.js';
import { shared } from './supply/shared.js';
import { volts } from './supply/volts.js';
import { direction } from './wire/direction.js';
import { exchanged } from './wire/exchanged.js';
import { expression } from './wire/expression.js';
import { fourCable } from './wire/four-cable.js';
import { legSwapped } from './wire/leg-swapped.js';
import { lineIntoSpeaker } from './wire/line-into-speaker.js';
import { loadMismatch } from './wire/load-mismatch.js';
import { longUnbalanced } from './wire/long-unbalanced.js';
import { lostOutput } from './wire/lost-output.js';
import { noLoad } from './wire/no-load.js';
import { passiveJoin } from './wire/passive-join.js';
import { passiveSplit } from './wire/passive-split.js';
import { phantom } from './wire/phantom.js';
import { plug } from './wire/plug.js';
import { ring } from './wire/ring.js';
import { silent } from './wire/silent.js';
import { spareReturn } from './wire/spare-return.js';
import { speakerIntoLine } from './wire/speaker-into-line.js';
import { stereoLost } from './wire/stereo-lost.js';
import { unmetStage } from './wire/unmet-stage.js';
import { unused } from './wire/unused.js';

/** Every check, sorted by code. */
export const CHECKS: readonly Check[] = [
  cableShort,
  overhang,
  overlap,
  weight,
  dryInWet,
  parallel,
  loop,
  noSpare,
  singlePoint,
  total,
  clip,
  instrumentSwap,
  mismatch,
  step,
  bypassChain,
  treble,
  homeMade,
  capacity,
  chainLong,
  crosstalk,
  loadGap,
  numberShift,
  range,
  trsType,
  twice,
  unreached,
  floor,
  compressorLiftsNoise,
  conflict,
  delayIntoGain,
  dirtInLoop,
  fuzzAfterBuffer,
  gateBeforeNoise,
  gateCutsTails,
  noAmpStage,
  noCabSim,
  oddOneOut,
  tunerMute,
  twoCabSims,
  volumePlace,
  wahSide,
  gap,
  handMove,
  knobLeft,
  moveLeftOn,
  slotClash,
  tails,
  toggle,
  uncalled,
  undecided,
  unpinned,
  unsaid,
  actBanks,
  fatFoot,
  mirrorApart,
  ringsOn,
  roleMoved,
  slots,
  stomps,
  tempo,
  battery,
  count,
  current,
  polarity,
  shared,
  volts,
  direction,
  exchanged,
  expression,
  fourCable,
  legSwapped,
  lineIntoSpeaker,
  loadMismatch,
  longUnbalanced,
  lostOutput,
  noLoad,
  passiveJoin,
  passiveSplit,
  phantom,
  plug,
  ring,
  silent,
  spareReturn,
  speakerIntoLine,
  stereoLost,
  unmetStage,
  unused,
];
