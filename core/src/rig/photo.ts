import type { AnyId, Id } from './ids.js';

/** A picture of the rig as it was: a knob, a board from below, a patch at a house. */
export interface Photo {
  readonly kind: 'photo';
  readonly id: Id<'photo'>;
  /** ISO 8601. */
  readonly when: string;
  readonly text: string;
  readonly by?: string;
  readonly about: readonly AnyId[];
  /** Width and height. */
  readonly px: readonly [number, number];
  /** As base64. It says nothing of where it was taken. */
  readonly jpeg: string;
}

/** A picture file is at most so large, in bytes, before it is made smaller. */
export const LARGEST_PICTURE = 25_000_000;
/** The longer side of a picture that is kept, in pixels. */
export const WIDEST_PHOTO = 1280;
/** A picture that is kept, in characters of base64. */
export const HEAVIEST_PHOTO = 300_000;

const BYTES_OF_BASE64 = /^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/;
const START = 0xd8;
const SCAN = 0xda;
const COMMENT = 0xfe;
/** What stands aside of the picture and tells how to show it: dots to the inch, colours. By marker, how it begins. */
const TELLS_HOW: Readonly<Record<number, string>> = { 0xe0: 'JFIF', 0xe2: 'ICC_PROFILE', 0xee: 'Adobe' };

/** What stands before the picture in a JPEG. */
interface Segment {
  readonly marker: number;
  readonly begins: string;
}

const isAside = ({ marker, begins }: Segment): boolean => {
  const isApplication = marker >= 0xe0 && marker <= 0xef;
  const how = TELLS_HOW[marker];
  return marker === COMMENT || (isApplication && (how === undefined || !begins.startsWith(how)));
};

/**
 * The segments of a JPEG up to its picture; undefined when it is none.
 * Source: ITU-T T.81, annex B.1: a marker is FF and a byte, then the length of its segment in two bytes.
 */
const segmentsOf = (bytes: Uint8Array): readonly Segment[] | undefined => {
  if (bytes[0] !== 0xff || bytes[1] !== START) return undefined;
  const segments: Segment[] = [];
  for (let at = 2; at + 3 < bytes.length;) {
    const marker = bytes[at + 1];
    if (bytes[at] !== 0xff || marker === undefined) return undefined;
    segments.push({ marker, begins: String.fromCharCode(...bytes.subarray(at + 4, at + 15)) });
    if (marker === SCAN) return segments;
    at += 2 + (bytes[at + 2] ?? 0) * 256 + (bytes[at + 3] ?? 0);
  }
  return undefined;
};

/** What keeps a picture from being kept, in words; undefined when nothing does. */
export const wrongJpeg = (jpeg: string): { readonly wrong: string; readonly would: string } | undefined => {
  const segments = BYTES_OF_BASE64.test(jpeg)
    ? segmentsOf(Uint8Array.from(atob(jpeg), (c) => c.charCodeAt(0)))
    : undefined;
  if (!segments) return { wrong: 'This is no JPEG picture.', would: 'Add the picture again, on Road, Logbook.' };
  return segments.some(isAside)
    ? {
        wrong: 'The picture says more than it shows: where or with what it was taken.',
        would: 'Add it again on Road, Logbook: that is taken out there.',
      }
    : undefined;
};
