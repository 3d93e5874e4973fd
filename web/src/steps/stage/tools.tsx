import type { StageCue } from '@yunta/core/derive/views/stage';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useMidi, type MidiState } from '../../shared/use-midi.js';

export interface Stopping {
  readonly isStopped: boolean;
  readonly stop: (is: boolean) => void;
}

/** When the computer or the song list has stopped: what it called is told as stomps from then on. */
export const StopTool = ({ isStopped, stop }: Stopping) => (
  <button type="button" aria-pressed={isStopped} onClick={() => stop(!isStopped)}>
    {isStopped ? 'It plays again' : 'Computer stopped'}
  </button>
);

export interface Sending {
  readonly isOn: boolean;
  readonly turn: (on: boolean) => void;
  readonly state: MidiState;
  /** Sends once more what the cue wants. */
  readonly again: () => void;
  /** What was sent last, in words. */
  readonly said: string;
}

const sendAll = async (cue: StageCue | undefined): Promise<string> => {
  const sends = cue?.sends ?? [];
  if (sends.length === 0) return '';
  const access = await navigator.requestMIDIAccess();
  const outputs = [...access.outputs.values()];
  if (outputs.length === 0) return 'no MIDI output is plugged in';
  let at = performance.now();
  for (const { afterMs, bytes } of sends) {
    at += afterMs;
    for (const output of outputs) output.send([...bytes], at);
  }
  return `sent to ${outputs.map((o) => o.name ?? 'an output').join(', ')}`;
};

/**
 * MIDI on stage, once it is switched on: a foot on any MIDI switch goes on to the next cue, and what a song list would
 * send for a cue goes out when it comes.
 */
export const useSending = (cue: StageCue | undefined, place: string, next: () => void): Sending => {
  const [isOn, turn] = useState(false);
  const [said, say] = useState('');
  const state = useMidi(isOn, next);
  const latest = useRef(cue);
  useEffect(() => {
    latest.current = cue;
  });
  const again = useCallback((): void => {
    sendAll(latest.current).then(say, () => say('the browser does not let MIDI out'));
  }, []);
  useEffect(() => {
    if (isOn && state === 'listening') again();
  }, [isOn, state, place, again]);
  return { isOn, turn, state, again, said };
};

const WORDS: Readonly<Record<MidiState, string>> = {
  asking: 'asking for MIDI',
  listening: 'MIDI on',
  refused: 'MIDI not allowed',
  none: 'no MIDI in this browser',
};

export const MidiTools = ({ sending, cue }: { sending: Sending; cue: StageCue | undefined }) => (
  <>
    <button
      type="button"
      aria-pressed={sending.isOn}
      title="A MIDI switch goes on to the next cue; what a list sends for a cue goes out"
      onClick={() => sending.turn(!sending.isOn)}
    >
      {sending.isOn ? WORDS[sending.state] : 'MIDI'}
    </button>
    {sending.isOn && cue?.sends && (
      <button type="button" onClick={sending.again}>
        Send again
      </button>
    )}
    {sending.isOn && sending.said && <span role="status">{sending.said}</span>}
  </>
);
