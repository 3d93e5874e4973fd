import type { Device } from '@yunta/core/rig/device';

/** What a box is in the path, in a few words. */
export const doesText = (device: Pick<Device, 'chains' | 'ends' | 'jacks'>): string => {
  const slots = device.chains.flatMap((c) => c.slots);
  const inserts = slots.filter((s) => s.is === 'insert').length;
  const source = device.ends?.find((e) => e.is === 'source');
  if (source?.dbu) return `instrument, ${source.dbu.average} dBu assumed`;
  if (inserts > 1) return `${inserts} loops${device.chains.some((c) => c.order) ? ', can reorder' : ''}`;
  const feeds = device.jacks.filter((j) => j.kind === 'power' && j.poles.tip === 'out' && j.supply);
  const isSupply = feeds.length > 0 && device.chains.length === 0;
  if (isSupply) return feeds.length === 1 ? 'feeds one box' : `feeds ${feeds.length} boxes`;
  const stages = slots.flatMap((s) =>
    s.is === 'block'
      ? [s.stage]
      : s.is === 'fork'
        ? s.arms.flatMap((a) => a.slots.flatMap((b) => (b.is === 'block' ? [`${b.stage} ${b.id}`] : [])))
        : [],
  );
  return stages.join(', ') || (device.ends?.length ? 'where it is heard' : 'passes on');
};
