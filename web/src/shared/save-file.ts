import { writeRigFile } from '@yunta/core/formats/rig-file';
import { withOrigin } from '@yunta/core/change/origin';
import { rigName, type Rig } from '@yunta/core/rig/rig';
import type { SessionStore } from '../session/store.js';

/** Hands a text, or bytes, to the browser as a file to keep. */
export const saveFile = (name: string, content: string | Uint8Array<ArrayBuffer>, type: string): void => {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
};

/** @example fileName('Island run', 'ferry deck') // 'island-run-ferry-deck' */
export const fileName = (...parts: readonly string[]): string =>
  parts
    .map((p) =>
      p
        .toLowerCase()
        .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
        .replaceAll(/^-|-$/g, ''),
    )
    .filter(Boolean)
    .join('-') || 'rig';

/**
 * The whole rig as a rig file, by its name; it knows which rig it is a copy of.
 * @param confirmed the rig as the server has it
 */
export const saveRig = (rig: Rig, id: string, confirmed: Rig = rig): void =>
  saveFile(`${fileName(rigName(rig))}.yunta.json`, writeRigFile(withOrigin(rig, id, confirmed)), 'application/json');

/** The same of a rig that is open. */
export const saveOpenRig = async (store: SessionStore): Promise<void> => {
  const { rig, confirmed } = await store.toHandOn();
  saveRig(rig, store.rigId, confirmed);
};
