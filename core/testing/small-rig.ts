import { makeDevice } from '../src/catalogue/make.js';
import { apply } from '../src/change/apply.js';
import type { Cable, Hookup } from '../src/rig/hookup.js';
import type { Id, Ref } from '../src/rig/ids.js';
import { ABOUT, emptyRig, type Part, type Rig } from '../src/rig/rig.js';
import type { Sound, Want } from '../src/rig/sound.js';
import type { Settings } from '../src/rig/value.js';

export interface SmallRig {
  /** Catalogue keys by short ids. */
  readonly boxes: Readonly<Record<string, string>>;
  /** `g.out>d.in`, or `g.out>d.in 7` with metres. */
  readonly leads: readonly string[];
  /** Stages in, by sound; none named means that every stage is wanted out. `s.loop6=on` wants a control. */
  readonly sounds?: Readonly<Record<string, readonly string[]>>;
  readonly settings?: Readonly<Record<string, string | number>>;
  readonly hears?: Hookup['hears'];
  readonly with?: (part: Part) => Part;
}

const want = (said: string): Want => {
  const [target, is] = said.split('=') as [string, string?];
  return is === undefined
    ? { stage: `device:${target}` as Ref, is: 'in' }
    : { control: `device:${target}` as Ref, is: /^-?\d+$/.test(is) ? Number(is) : is };
};

export const SMALL: Id<'hookup'> = 'hookup:main';

/**
 * A rig said in a few words, for tests: boxes by catalogue key, leads from jack to jack, sounds by the stages that are
 * in.
 */
export const smallRig = ({
  boxes,
  leads,
  sounds = {},
  settings = {},
  hears = [],
  with: change = (p) => p,
}: SmallRig): Rig => {
  const devices = Object.entries(boxes).map(([id, key], i) => ({
    ...makeDevice(key, `device:${id}`, { code: id.toUpperCase().slice(0, 4) }),
    at: i + 1,
  }));
  const cables = leads.map((lead, i): Cable => {
    const [ends, metres] = lead.split(' ');
    const [from, to] = ends!.split('>');
    return {
      kind: 'cable',
      id: `cable:${i + 1}`,
      hookup: SMALL,
      ends: [`device:${from!}` as Ref, `device:${to!}` as Ref],
      ...(metres ? { m: Number(metres) } : {}),
    };
  });
  const of = Object.fromEntries(Object.entries(settings).map(([r, v]) => [`device:${r}`, v])) as Settings;
  const hookup: Hookup = { kind: 'hookup', id: SMALL, name: 'Main', settings: of, hears, assumes: [] };
  const wanted = Object.entries(sounds).map(([name, stages], i): Sound => ({
    kind: 'sound',
    id: `sound:${name.toLowerCase().replaceAll(' ', '-')}`,
    name,
    role: 'other',
    at: i + 1,
    wants: stages.map(want),
    calls: [],
  }));
  const built = apply(emptyRig(), {
    put: (
      [{ kind: 'about', id: ABOUT, name: 'Small', notes: '' }, ...devices, hookup, ...cables, ...wanted] as Part[]
    ).map(change),
    remove: [],
  });
  if (!built.ok) throw new Error(JSON.stringify(built.error[0]));
  return built.value.rig;
};
