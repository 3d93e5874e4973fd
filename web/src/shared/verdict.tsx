import './verdict.css';
import { Fragment } from 'react';
import type { SoundView } from '@yunta/core/derive/views/view';
import { headlineParts, SIGNS, verdictText, type Limbs } from '@yunta/core/recall/words/verdict-words';
import type { Tally, VerdictKind } from '@yunta/core/recall/verdict/sound-verdict';

/** The colour of each verdict; only what comes back by itself is green. */
export const VERDICT_CLASSES: Readonly<Record<VerdictKind, string>> = {
  proved: 'proved',
  'left to hands': 'verdict-hands',
  undecided: 'verdict-open',
  broken: 'broken',
  'cannot sound': 'verdict-mute',
};

/** The sign of a verdict; the word stands beside it, or is told to screen readers apart. */
export const VerdictSign = ({ is }: { is: VerdictKind }) => (
  <span className={VERDICT_CLASSES[is]} aria-hidden="true">
    {SIGNS[is]}
  </span>
);

export const VerdictText = ({ sound }: { sound: SoundView }) => (
  <span className={VERDICT_CLASSES[sound.verdict]}>{verdictText(sound)}</span>
);

/** How many sounds come back, and what is to be said of the others, each in its colour. */
export const Headline = ({ tally, limbs }: { tally: Tally; limbs: Limbs }) => (
  <>
    {headlineParts(tally, limbs).map(({ is, text }, i) => (
      <Fragment key={is}>
        {i ? ' ' : ''}
        <span className={is === 'proved' && tally.proved < tally.sounds ? '' : VERDICT_CLASSES[is]}>{text}</span>
      </Fragment>
    ))}
  </>
);
