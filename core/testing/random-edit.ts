import { setBoard, standAt } from '../src/edits/boards.js';
import { addCase, pack, tickThing } from '../src/edits/packing.js';
import { addHouse, noteNight } from '../src/edits/houses.js';
import { addEntry } from '../src/edits/logbook.js';
import { setMix } from '../src/edits/mixes.js';
import { HOW_MUCH } from '../src/rig/hookup.js';
import { addDevice, changeDevice, removeDevice } from '../src/edits/devices.js';
import { connect, offers, unplug } from '../src/edits/cables.js';
import { addSound, changeSound, clearWant, removeSound, setWant } from '../src/edits/sounds.js';
import { nothing, type Edit } from '../src/change/edit.js';
import { ref } from '../src/rig/ids.js';
import { blockIds } from '../src/rig/domain.js';
import { all, type Rig } from '../src/rig/rig.js';
import { wantTarget } from '../src/rig/sound.js';
import type { Random } from './random.js';

const BOXES = ['compressor', 'fuzz', 'stereo-delay', 'boost', 'switcher-4'];

/** What is kept of nights and of the band. */
const onTheRoad = (r: Random, rig: Rig, tag: string): readonly (() => Edit)[] => {
  const [house] = all(rig, 'house');
  return [
    () => addHouse(`house:new-${tag}`, `House ${r.int(1, 3)}`),
    () => (house ? noteNight(house, '2026-05-31', `Found ${r.int(1, 3)}`) : nothing),
    () => setMix(all(rig, 'hookup')[0]!, r.pick(['Singer', 'Drummer']), { hears: { click: r.pick(HOW_MUCH) } }),
    () => addEntry(`logEntry:new-${tag}`, { text: 'Failed', when: '2026-05-31T10:00:00.000Z', by: '', broke: 'jack' }),
  ];
};

/** One gesture that a person might make on this rig; it may do nothing. `tag` keeps new ids apart. */
export const randomEdit = (r: Random, rig: Rig, tag: string): Edit => {
  const devices = all(rig, 'device');
  const sounds = all(rig, 'sound');
  const cables = all(rig, 'cable');
  const hookup = all(rig, 'hookup')[0]!;
  const gestures: readonly (() => Edit)[] = [
    () => addDevice(rig, r.pick(BOXES), `device:new-${tag}`),
    () => (devices.length > 3 ? removeDevice(rig, r.pick(devices).id) : nothing),
    () => (devices.length ? changeDevice(r.pick(devices), { name: `Renamed ${r.int(1, 3)}` }) : nothing),
    () => (cables.length ? unplug(r.pick(cables).id) : nothing),
    () => {
      const device = devices.length ? r.pick(devices) : undefined;
      const jack = device && device.jacks.length ? r.pick(device.jacks) : undefined;
      const to = device && jack ? offers(rig, hookup.id, ref(device.id, jack.id))[0] : undefined;
      return device && jack && to
        ? connect(rig, hookup.id, `cable:new-${tag}`, ref(device.id, jack.id), to.jack)
        : nothing;
    },
    () => addSound(rig, `sound:new-${tag}`, `New ${r.int(1, 9)}`),
    () => (sounds.length > 1 ? removeSound(rig, r.pick(sounds).id) : nothing),
    () => (sounds.length ? changeSound(r.pick(sounds), { name: `Called ${r.int(1, 3)}` }) : nothing),
    () => {
      const device = devices.length ? r.pick(devices) : undefined;
      const [block] = device?.chains.flatMap((c) => blockIds(c.slots)) ?? [];
      return device && block && sounds.length
        ? setWant(r.pick(sounds), { stage: ref(device.id, block), is: r.pick(['in', 'out', 'any'] as const) })
        : nothing;
    },
    () => {
      const sound = sounds.length ? r.pick(sounds) : undefined;
      return sound?.wants.length ? clearWant(sound, wantTarget(r.pick(sound.wants))) : nothing;
    },
    () => setBoard(rig, r.pick(['Floor', 'Tier']), { mm: [r.int(1, 20) * 50, 300] }),
    () =>
      devices.length
        ? standAt(hookup, {
            [r.pick(devices).id]: r.chance(80)
              ? { at: 'Floor', x: r.int(0, 99), y: r.int(0, 99), turn: 90 }
              : undefined,
          })
        : nothing,
    () => addCase(`packCase:new-${tag}`, `Case ${r.int(1, 3)}`),
    () => {
      const cases = all(rig, 'packCase');
      const device = devices.length && r.chance(50) ? { device: r.pick(devices).id } : {};
      return cases.length ? pack(r.pick(cases), `Thing ${r.int(1, 4)}`, { many: r.int(1, 3), ...device }) : nothing;
    },
    () => r.pick(onTheRoad(r, rig, tag))(),
    () =>
      tickThing(rig, '2026-05-31', r.pick(['out', 'back'] as const), `Thing ${r.int(1, 4)}`, {
        by: 'Ada',
        when: '2026-05-30T12:00:00.000Z',
      }),
  ];
  return r.pick(gestures)();
};
