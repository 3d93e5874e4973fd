import './paper.css';
import { Button } from '@mantine/core';
import { rigName } from '@yunta/core/rig/rig';
import { useEffect, useState, type ReactNode } from 'react';
import { createPortal, flushSync } from 'react-dom';
import { useRig } from '../rig-context.js';

/** Whether the page is being printed just now: a paper is laid out then, and costs nothing while one works. */
export const usePrinting = (): boolean => {
  const [isPrinting, set] = useState(() => window.matchMedia('print').matches);
  useEffect(() => {
    const media = window.matchMedia('print');
    const begin = () => flushSync(() => set(true));
    // The page may be shown as printed once more before it hears that the last print is over.
    const end = () => set(media.matches);
    const turn = () => (media.matches ? begin() : end());
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    media.addEventListener('change', turn);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
      media.removeEventListener('change', turn);
    };
  }, []);
  return isPrinting;
};

/**
 * What comes out of the printer in place of the room: nothing but content, on A4 or Letter. Wide papers lie on their
 * side.
 */
export const Paper = ({ title, wide, children }: { title: string; wide?: true; children: ReactNode }) => {
  const { rig, hookup } = useRig();
  return createPortal(
    <article className={`paper ${wide ? 'wide' : ''}`}>
      <header>
        <h1>{title}</h1>
        <p>
          {rigName(rig)}
          {hookup ? `, ${hookup.name}` : ''}, revision {rig.revision}, {new Date().toLocaleDateString()}
        </p>
      </header>
      {children}
    </article>,
    document.body,
  );
};

export const PrintButton = ({ what }: { what: string }) => (
  <Button variant="default" size="xs" aria-label={`Print ${what}`} onClick={() => window.print()}>
    Print
  </Button>
);
