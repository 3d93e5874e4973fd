import type { WhatIfView } from '@yunta/core/derive/views/what-ifs';
import { renderToStaticMarkup } from 'react-dom/server';
import { AnswerText, QUESTIONS } from './what-ifs.js';

const [late] = QUESTIONS;
const words = (answer: Partial<WhatIfView>): string =>
  renderToStaticMarkup(
    <AnswerText
      question={late!}
      answer={{ about: 'late release', judged: 4, troubles: [], undecided: [], ...answer }}
    />,
  ).replace(/<[^>]+>/g, '');

describe('an answer as the player reads it', () => {
  test('says that all is right only when all was decided', () => {
    expect(words({})).toBe('Every sound stays right.');
    expect(words({ undecided: ['Lead'] })).toBe(
      'Nothing wrong was found, but not all could be searched. Not decided: Lead.',
    );
  });
  test('that failed claims nothing', () =>
    expect(words({ fault: 'a torn rig' })).toBe(
      'Not answered, by a fault of Yunta: a torn rig. The other questions were asked.',
    ));
});
