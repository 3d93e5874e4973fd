import type { Stage } from '@yunta/core/derive/views/stage';
import { useEffect, useMemo, useState } from 'react';
import { Away, showsApi, type SharedNight, type Show } from '../../session/api.js';
import type { Place } from './place.js';

const nightFor = (rig: string, { name, songs }: Stage, place: Place): SharedNight => ({
  rig,
  name,
  songs: songs.map(({ title, facts, cues }) => ({
    title,
    facts: facts.join(', '),
    cues: cues.map(({ name: cue, sound, hit, bank, hands }) => ({
      name: cue,
      ...(sound === undefined ? {} : { sound }),
      ...(hit === undefined ? {} : { hit }),
      ...(bank === undefined ? {} : { bank }),
      hands,
    })),
  })),
  ...place,
});

export interface Sharing {
  /** Null: not shared; undefined: nobody knows yet. */
  readonly show: Show | null | undefined;
  readonly start: () => void;
  readonly withdraw: () => void;
  readonly wrong: string;
}

/** Others on the network look on by a link, from when it is shared until it is withdrawn; they go along cue by cue. */
export const useSharing = (rigId: string, stage: Stage, place: Place, isOnline: boolean): Sharing => {
  const [show, setShow] = useState<Show | null>();
  const [wrong, setWrong] = useState('');
  const night = useMemo(() => nightFor(rigId, stage, place), [rigId, stage, place]);
  useEffect(() => {
    if (!isOnline) return;
    showsApi.shared(rigId).then(
      (now) => setShow(now.show),
      () => setShow(undefined),
    );
  }, [rigId, isOnline]);
  const token = show?.token;
  useEffect(() => {
    if (token === undefined) return;
    // Who looks on sees the cue before until the server answers again; the next cue is sent anew.
    showsApi.goOn(token, night).catch((e: unknown) => {
      if (!(e instanceof Away)) setShow(null);
    });
  }, [token, night]);
  const failed = (e: unknown): void => setWrong(e instanceof Error ? e.message : String(e));
  return {
    show,
    wrong,
    start: () => {
      setWrong('');
      showsApi.share(night).then(setShow, failed);
    },
    withdraw: () => {
      if (token === undefined) return;
      showsApi.withdraw(token).then(() => setShow(null), failed);
    },
  };
};

/** Off until somebody switches it on; the link stands there as long as it is on. */
export const ShareTool = ({ sharing: { show, start, withdraw, wrong } }: { sharing: Sharing }) => {
  if (show === undefined) return null;
  if (show === null)
    return (
      <>
        <button type="button" title="A link by which others on this network look on" onClick={start}>
          Show to others
        </button>
        {wrong && <span role="alert">{wrong}</span>}
      </>
    );
  return (
    <>
      <span role="status" className="stage-link mono">
        {show.urls[0] ?? 'this machine is on no network'}
      </span>
      <button type="button" aria-pressed onClick={withdraw}>
        Withdraw the link
      </button>
    </>
  );
};
