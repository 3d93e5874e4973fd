import { making, type Edit, type Making } from '../change/edit.js';
import type { House } from '../rig/house.js';
import type { Id } from '../rig/ids.js';
import { all, type Rig } from '../rig/rig.js';

export const addHouse = (id: Id<'house'>, name: string): Making<House> =>
  making({ kind: 'house', id, name, nights: {} });

/** What is undefined is taken away. */
export const changeHouse = (
  house: House,
  change: { readonly [K in keyof Omit<House, 'kind' | 'id'>]?: House[K] | undefined },
): Making<House> =>
  making(
    Object.fromEntries(Object.entries({ ...house, ...change }).filter(([, v]) => v !== undefined)) as unknown as House,
  );

export const removeHouse = (id: Id<'house'>): Edit => ({ put: [], remove: [id] });

/** Notes a night there, with what was found; undefined takes the night away. */
export const noteNight = (house: House, day: string, found: string | undefined): Making<House> => {
  const { [day]: _, ...others } = house.nights;
  return changeHouse(house, { nights: found === undefined ? others : { ...house.nights, [day]: found } });
};

/** Nights of a house, the last first. */
export const nightsOf = ({ nights }: House): readonly string[] => Object.keys(nights).sort().reverse();

/** The houses, that of the last night first, those without a night by name. */
export const housesOf = (rig: Rig): readonly House[] => {
  const last = (house: House): string => nightsOf(house)[0] ?? '';
  return [...all(rig, 'house')].sort((a, b) => last(b).localeCompare(last(a)) || a.name.localeCompare(b.name));
};

/** Where one plays on a day. */
export const houseOn = (rig: Rig, day: string): House | undefined =>
  all(rig, 'house').find((house) => day in house.nights);
