import type { Item } from '../src/signal/drawing/picture.js';

/**
 * A run as one line: boxes by their id, bypassed ones in brackets, loops in parentheses, loops that are off in
 * slashes, arms in braces; `═` before what is reached over both sides, `<` behind the box that makes two, `>` behind
 * the one that adds them.
 */
export const line = (items: readonly Item[]): string =>
  items
    .map((i) => {
      switch (i.is) {
        case 'box':
          return `${i.wide ? '═' : ''}${i.stages.some((s) => !s.on) ? `[${i.device.slice(7)}]` : i.device.slice(7)}${i.sides ? { part: '<', meet: '>' }[i.sides] : ''}`;
        case 'loop':
          return i.on ? `(${line(i.inside)})` : `/${i.holds.map((h) => h.slice(7)).join('+')}/`;
        case 'split':
          return `{${i.arms.map(line).join(' | ')}}${i.joins ? '' : '…'}`;
        case 'end':
          return `${i.wide ? '═' : ''}→${i.name}:${i.sides.join('+')}`;
      }
    })
    .join(' ');
