import type { UseOfBox } from '@yunta/core/derive/views/without';
import { someOf } from '@yunta/core/known/some-of';
import type { Id } from '@yunta/core/rig/ids';
import { useAsked } from './rig-context.js';

const MOST = 5;

/** Which sounds, songs and set lists use a box, and what follows from it. */
export const UsedIn = ({ device, code }: { device: Id<'device'>; code: string }) => {
  const answer = useAsked(['use', device], (worker) => worker.answers.boxUse(device));
  // The answer before stays on the screen until the next is there: of another box it would be untrue.
  const use = answer?.device === device ? answer.use : undefined;
  return use && use.of > 0 ? (
    <p className="used-in">
      <Use code={code} use={use} />
    </p>
  ) : null;
};

const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

const Use = ({ code, use: { sounds, of, songs, sets, says } }: { code: string; use: UseOfBox }) => (
  <>
    <strong>{code} is used</strong> in {sounds.length} of {counted(of, 'sound', 'sounds')}
    {sounds.length > 0 && sounds.length < of ? ` (${someOf(sounds, MOST)})` : ''}, in{' '}
    {counted(songs.length, 'song', 'songs')}
    {songs.length > 0 ? ` (${someOf(songs, MOST)})` : ''} and {counted(sets.length, 'set list', 'set lists')}. {says}
  </>
);
