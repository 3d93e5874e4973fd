import { useEffect, useRef } from 'react';

const [HIGH_HZ, LOW_HZ, LENGTH] = [1760, 1100, 0.04];
/** Clicks are handed to the sound card so long before they are heard. */
const AHEAD_SECONDS = 0.25;

export interface Click {
  readonly at: number;
  readonly isFirst: boolean;
}

const sound = (audio: AudioContext, at: number, isFirst: boolean): void => {
  const tone = audio.createOscillator();
  const level = audio.createGain();
  tone.frequency.value = isFirst ? HIGH_HZ : LOW_HZ;
  level.gain.setValueAtTime(0.3, at);
  level.gain.exponentialRampToValueAtTime(0.001, at + LENGTH);
  tone.connect(level).connect(audio.destination);
  tone.start(at);
  tone.stop(at + LENGTH);
};

/**
 * Plays clicks while it is running. @param now seconds of the song at this moment; asked again and again
 * @param clicks by seconds of the song; undefined while nothing is played
 */
export const useClick = (clicks: readonly Click[] | undefined, now: () => number): void => {
  const clock = useRef(now);
  useEffect(() => {
    clock.current = now;
  });
  useEffect(() => {
    if (!clicks || typeof AudioContext === 'undefined') return;
    const audio = new AudioContext();
    let next = 0;
    const fill = (): void => {
      const at = clock.current();
      for (; next < clicks.length; next += 1) {
        const click = clicks[next];
        if (!click || click.at > at + AHEAD_SECONDS) break;
        if (click.at >= at - LENGTH) sound(audio, audio.currentTime + Math.max(0, click.at - at), click.isFirst);
      }
    };
    fill();
    const timer = setInterval(fill, (AHEAD_SECONDS * 1000) / 2);
    return () => {
      clearInterval(timer);
      void audio.close();
    };
  }, [clicks]);
};
