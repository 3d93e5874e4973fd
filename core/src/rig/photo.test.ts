import { after } from '../../testing/after.js';
import { apply } from '../change/apply.js';
import { islandRun } from '../demo/island-run.js';
import { addPhoto } from '../edits/logbook.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { wrongJpeg } from './photo.js';

/** Segments as ITU-T T.81 has them, and a scan of nothing. */
const jpeg = (...segments: readonly (readonly [marker: number, text: string])[]): string => {
  const of = (marker: number, text: string): readonly number[] => {
    const bytes = [...text].map((c) => c.charCodeAt(0));
    return [0xff, marker, (bytes.length + 2) >> 8, (bytes.length + 2) & 0xff, ...bytes];
  };
  const bytes = [0xff, 0xd8, ...segments.flatMap(([m, t]) => of(m, t)), ...of(0xda, 'scan'), 1, 2, 3, 0xff, 0xd9];
  return Buffer.from(bytes).toString('base64');
};
const BARE = jpeg([0xe0, 'JFIF\0'], [0xdb, 'tables'], [0xc0, 'frame']);

test('a picture that only shows is kept; one that says where or with what it was taken is not, nor anything else', () => {
  expect(wrongJpeg(BARE)).toBeUndefined();
  expect(wrongJpeg(jpeg([0xe0, 'JFIF\0'], [0xe2, 'ICC_PROFILE\0 colours']))).toBeUndefined();
  expect(wrongJpeg(jpeg([0xe2, 'MPF\0 another picture']))?.wrong).toContain('where or with what');
  expect(wrongJpeg(jpeg([0xe0, 'JFIF\0'], [0xe1, 'Exif\0\0 54.1 N']))?.wrong).toContain('where or with what');
  expect(wrongJpeg(jpeg([0xfe, 'at home']))?.wrong).toContain('where or with what');
  for (const none of ['', 'no picture', 'AAAA', Buffer.from('GIF89a..').toString('base64'), BARE.slice(0, 12)])
    expect(wrongJpeg(none)?.wrong).toContain('no JPEG');
});

test('a photograph goes into a rig file and back; one with a place in it is refused in words', () => {
  const said = {
    text: 'Knobs of the delay',
    when: '2026-05-01T10:00:00.000Z',
    by: 'Ada',
    about: 'device:dly' as const,
  };
  const rig = after(islandRun(), addPhoto('photo:a', { jpeg: BARE, px: [640, 480] }, said));
  const read = readRigFile(writeRigFile(rig));
  expect(read.ok && read.value.parts.photo.get('photo:a')).toEqual(rig.parts.photo.get('photo:a'));
  const bad = apply(rig, addPhoto('photo:b', { jpeg: jpeg([0xe1, 'Exif']), px: [640, 480] }, said));
  expect(!bad.ok && bad.error[0]).toMatchObject({ where: 'jpeg', part: 'photo:b' });
});
