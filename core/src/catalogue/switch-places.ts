import type { Device, Figures } from '../rig/device.js';
import { ok, refuse, type Result } from '../rig/result.js';

type Places = NonNullable<Figures['switches']>;

/** Switches for a foot, those that call its slots first. */
export const footSwitches = (device: Device): readonly string[] => [
  ...new Set([
    ...device.memories.flatMap((m) => m.switches ?? []),
    ...device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])),
  ]),
];

const ONE = /^(.+?)\s+(-?\d+(?:\.\d+)?)\s*[,/ ]\s*(-?\d+(?:\.\d+)?)$/;
const IN_A_ROW = /^(\d+(?:\.\d+)?)\s*(?:mm)?\s*apart$/i;
const FURTHEST_MM = 3000;

/** Where the switches are, as it is typed. @example 'A 40 30; B 100 30' */
export const switchPlacesText = ({ figures }: Device): string =>
  (figures.switches ?? []).map(({ id, x, y }) => `${id} ${x} ${y}`).join('; ');

/**
 * Where the switches of a box are, in mm from its left and its front edge: each by itself ("A 40 30; B 100 30"), or all in
 * a row with so much from the middle of one to the next ("60 apart").
 * @returns undefined where nothing is said any more
 */
export const readSwitchPlaces = (device: Device, text: string): Result<Places | undefined> => {
  const typed = text.trim();
  const there = footSwitches(device);
  const refused = (wrong: string, would: string): Result<Places | undefined> =>
    refuse({ code: 'switches', where: 'where its switches are', wrong, would });
  if (typed === '') return ok(undefined);
  const apart = Number(IN_A_ROW.exec(typed)?.[1] ?? NaN);
  if (apart > 0 && apart <= FURTHEST_MM) return ok(there.map((id, i) => ({ id, x: Math.round(apart * i), y: 0 })));
  const places: { readonly id: string; readonly x: number; readonly y: number }[] = [];
  for (const part of typed.split(/[;\n]/).filter((p) => p.trim())) {
    const [, name = '', x, y] = ONE.exec(part.trim()) ?? [];
    const id = there.find((s) => s.toLowerCase() === name.trim().toLowerCase());
    if (x === undefined || y === undefined)
      return refused(
        `"${part.trim()}" is no place.`,
        'Type a switch and its mm from the left and the front: A 40 30; B 100 30. Or: 60 apart.',
      );
    if (!id) return refused(`This box has no switch "${name}".`, `It has ${there.join(', ')}.`);
    if (places.some((p) => p.id === id)) return refused(`Switch ${id} is there twice.`, 'Give each switch one place.');
    if (Math.abs(Number(x)) > FURTHEST_MM || Math.abs(Number(y)) > FURTHEST_MM)
      return refused(`"${part.trim()}" is further than any box is wide.`, `Type mm, at most ${FURTHEST_MM}.`);
    places.push({ id, x: Number(x), y: Number(y) });
  }
  return ok(places);
};
