import type { Item } from '../src/signal/picture.js';

/** A run as one line: boxes by their id, bypassed ones in brackets, loops in parentheses, loops that are off in slashes, arms in braces. */
export const line = (items: readonly Item[]): string => items.map((i) => {
  switch (i.is) {
    case 'box': return i.stages.some((s) => !s.on) ? `[${i.device.slice(7)}]` : i.device.slice(7);
    case 'loop': return i.on ? `(${line(i.inside)})` : `/${i.holds.map((h) => h.slice(7)).join('+')}/`;
    case 'split': return `{${i.arms.map(line).join(' | ')}}${i.joins ? '' : '…'}`;
    case 'end': return `→${i.name}:${i.sides.join('+')}`;
  }
}).join(' ');
