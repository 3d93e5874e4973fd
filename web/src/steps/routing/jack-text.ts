import { splitRef, type Ref } from '@yunta/core/rig/ids';
import { partOf, type Rig } from '@yunta/core/rig/rig';

/** @example jackText(rig, 'device:swi.send1') // 'SWI send1' */
export const jackText = (rig: Rig, end: Ref): string => {
  const { device, name } = splitRef(end);
  return `${partOf(rig, device)?.code ?? device} ${name}`;
};

export const boxName = (rig: Rig, end: Ref): string => partOf(rig, splitRef(end).device)?.name ?? '';
