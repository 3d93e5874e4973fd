import { writeRigFile } from '@yunta/core/formats/rig-file';
import { newRig } from '@yunta/core/rig/rig';
import { checkedFile, copyName, whyNot } from './rig-keeping.js';
import { Away, RefusedByServer } from './api.js';

test('a copy gets a name that no other rig has', () => {
  expect(copyName('Gig', ['Gig'])).toBe('Gig, copy');
  expect(copyName('Gig', ['Gig', 'Gig, copy', 'Gig, copy 2'])).toBe('Gig, copy 3');
});
test('a file that is no rig is refused by its name, before anything is sent', () => {
  expect(checkedFile('ok.json', writeRigFile(newRig('Ok'))).wrong).toBeUndefined();
  expect(checkedFile('notes.json', '{"a": 1}').wrong).toContain('notes.json: ');
  expect(checkedFile('torn.json', '{').wrong).toMatch(/torn\.json: .*not JSON/);
});
test('why nothing came of it is said in words', () => {
  expect(whyNot(new Away('no route'))).toContain('The server does not answer');
  expect(whyNot(new RefusedByServer(409, { title: 'Taken', detail: 'That id is taken.' }))).toBe('That id is taken.');
});
