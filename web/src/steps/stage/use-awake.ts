import { useEffect } from 'react';

/** Keeps the screen awake as long as this is shown, where the browser lets it; again when the page comes back. */
export const useAwake = (): void => {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let isOver = false;
    const ask = (): void => {
      if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (granted) => {
          if (isOver) void granted.release();
          else lock = granted;
        },
        () => undefined, // A browser that saves its battery says no; the screen goes dark as usual then.
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
};
