import { useEffect, useState } from 'react';

/** What a message from outside is recognised by: its kind and channel, and its number. */
export type MidiSign = string;

const NOTE_ON = 9;
const CONTROLLER = 11;
const PROGRAM = 12;

/** @returns undefined for what is no stomp: a switch let go, a clock, a pedal on its way back */
export const signOf = (data: ArrayLike<number> | null | undefined): MidiSign | undefined => {
  const [status, number = 0, value = 0] = data ? Array.from(data) : [];
  if (status === undefined || status >= 0xf0) return undefined;
  const kind = status >> 4;
  const isDown = kind === PROGRAM || ((kind === NOTE_ON || kind === CONTROLLER) && value > 0);
  return isDown ? `${status} ${number}` : undefined;
};

export type MidiState = 'asking' | 'listening' | 'refused' | 'none';

/** Listens to every MIDI input, where the browser can and somebody lets it. @param heard asked anew with every render */
export const useMidi = (isWanted: boolean, heard: (sign: MidiSign) => void): MidiState => {
  const [access, setAccess] = useState<MIDIAccess>();
  const [state, setState] = useState<MidiState>('asking');
  useEffect(() => {
    if (!isWanted) return;
    if (!('requestMIDIAccess' in navigator)) return setState('none');
    let isOver = false;
    navigator.requestMIDIAccess().then(
      (granted) => {
        if (isOver) return;
        setAccess(granted);
        setState('listening');
      },
      () => !isOver && setState('refused'),
    );
    return () => {
      isOver = true;
    };
  }, [isWanted]);
  useEffect(() => {
    if (!access || !isWanted) return;
    const take = (e: MIDIMessageEvent): void => {
      const sign = signOf(e.data);
      if (sign) heard(sign);
    };
    const listen = (): void => access.inputs.forEach((input) => (input.onmidimessage = take));
    listen();
    access.onstatechange = listen;
    return () => {
      access.onstatechange = null;
      access.inputs.forEach((input) => (input.onmidimessage = null));
    };
  }, [access, isWanted, heard]);
  return state;
};
