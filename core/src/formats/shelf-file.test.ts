import { makeDevice } from '../catalogue/make.js';
import { CATALOGUE } from '../catalogue/boxes.js';
import { readShelfFile, writeShelfFile } from './shelf-file.js';

const wrong = (text: string): string => {
  const r = readShelfFile(text);
  return r.ok ? '' : r.error.map((e) => `${e.where}: ${e.wrong} ${e.would}`).join(' | ');
};

test('the whole catalogue comes back from a shelf file as it was', () => {
  const boxes = CATALOGUE.map((g, i) => makeDevice(g.key, `device:b${i}`));
  const read = readShelfFile(writeShelfFile(boxes));
  expect(read.ok && read.value).toEqual(boxes);
  const again = read.ok ? writeShelfFile(read.value) : '';
  const twice = readShelfFile(again);
  expect(twice.ok && writeShelfFile(twice.value)).toBe(again);
});

test.each([
  ['{', /This is not JSON/],
  ['{"yunta":"rig"}', /is not a shelf of Yunta/],
  ['[]', /is not a shelf/],
  ['null', /is not a shelf/],
  ['{"yunta":"shelf","format":99,"boxes":[]}', /99 is not a format/],
  ['{"yunta":"shelf","format":1,"boxes":{}}', /boxes: A list belongs here/],
  ['{"yunta":"shelf","format":1,"boxes":[{"kind":"device","id":"device:x","name":7}]}', /boxes\[0\]/],
  [
    '{"yunta":"shelf","format":1,"boxes":[{"kind":"song","id":"song:x","title":"T","cues":[]}]}',
    /A song stands among the boxes/,
  ],
])('%s', (text, says) => expect(wrong(text)).toMatch(says));
