import { Button } from '@mantine/core';
import type { SoundView } from '@yunta/core/derive/views/view';
import { partOf } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { useNavigate } from 'react-router';
import { useRig } from '../../shared/rig-context.js';
import { VerdictText } from '../../shared/verdict.js';
import { CalledBy } from './called-by.js';
import { SoundTools, type AddSound } from './sound-tools.js';
import { keysOf } from '@yunta/core/known/keys';

/** What can be unfolded below the run of a sound. */
export const PANELS = {
  detail: 'Order, ends, hands',
  ladder: 'Gain ladder',
  compare: 'Compare',
  without: 'Without a box',
  stored: 'What is stored',
} as const;
export type Panel = keyof typeof PANELS;

interface HeadProps {
  readonly sound: Sound;
  readonly shown: SoundView | undefined;
  readonly add: AddSound;
  readonly open: ReadonlySet<Panel>;
  readonly turn: (panel: Panel) => void;
}

/** Whether the chosen sound comes back, and what else can be looked at of it. */
export const Head = ({ sound, shown, add, open, turn }: HeadProps) => {
  const navigate = useNavigate();
  return (
    <div className="headline">
      <h1 className="any-name">{sound.name}</h1>
      <CalledBy key={sound.id} sound={sound} />
      <Said sound={sound} shown={shown} />
      <div className="tools">
        <SoundTools sound={sound} add={add} />
        {keysOf(PANELS).map((panel) => (
          <Button key={panel} variant="default" size="xs" aria-expanded={open.has(panel)} onClick={() => turn(panel)}>
            {PANELS[panel]}
          </Button>
        ))}
        <Button size="xs" onClick={() => void navigate('../bench', { state: { call: sound.id } })}>
          Try on the bench
        </Button>
      </div>
    </div>
  );
};

const Said = ({ sound, shown }: Pick<HeadProps, 'sound' | 'shown'>) => {
  const { rig } = useRig();
  const isUnclear = shown?.verdict === 'cannot sound' || shown?.verdict === 'undecided';
  return (
    <span className="soft">
      {sound.parent ? `${sound.mirror ? 'mirrors' : 'from'} ${partOf(rig, sound.parent)?.name} · ` : ''}
      {shown && <VerdictText sound={shown} />}
      {isUnclear ? ` · ${shown.because}` : ''}
      {shown?.byFoot.length ? ` · by foot: ${shown.byFoot.join('; ')}` : ''}
      {shown?.byHand.length ? ` · by hand: ${shown.byHand.join('; ')}` : ''}
    </span>
  );
};
