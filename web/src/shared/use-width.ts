import { useCallback, useState, type RefCallback } from 'react';

/** How wide the element with this ref is, in pixels: known before it is first painted, and whenever it changes. */
export const useWidth = (): readonly [RefCallback<HTMLElement>, number] => {
  const [width, setWidth] = useState(0);
  const measured = useCallback((element: HTMLElement | null) => {
    if (!element) return;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [measured, width];
};
