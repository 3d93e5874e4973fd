import { Button, Progress } from '@mantine/core';
import type { TroubleView, WhatIfView } from '@yunta/core/derive/views/what-ifs';
import type { Mishap } from '@yunta/core/recall/what-if/question';
import { proxy } from 'comlink';
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useRig } from '../../shared/rig-context.js';

interface Question {
  readonly about: Mishap;
  readonly asks: string;
  readonly right: (judged: number) => string;
  readonly wrong: (view: WhatIfView) => ReactNode;
}

const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
const soundsIn = (troubles: readonly TroubleView[]): number => new Set(troubles.map((t) => t.sound)).size;

export const QUESTIONS: readonly Question[] = [
  {
    about: 'late release',
    asks: 'a held switch is let go only after the next sound was called',
    right: () => 'Every sound stays right.',
    wrong: ({ troubles }) => `Spoils ${count(soundsIn(troubles), 'sound')}.`,
  },
  {
    about: 'first press',
    asks: 'a move is pressed right after a recall, and then taken back',
    right: (n) =>
      n
        ? `Every move gives its on list and takes it back: ${count(n, 'press', 'presses')} judged.`
        : 'No sound has a move.',
    wrong: ({ troubles }) =>
      `${count(troubles.length, 'press does', 'presses do')} not give what ${troubles.length === 1 ? 'it says' : 'they say'}.`,
  },
  {
    about: 'hasty feet',
    asks: 'the next stomp comes before the boxes have loaded',
    right: () => 'No wait is needed.',
    wrong: ({ troubles }) => (
      <>
        Right if you wait <strong>{Math.max(...troubles.map((t) => t.waitMs ?? 0))} ms</strong> between stomps;{' '}
        {count(soundsIn(troubles), 'sound needs', 'sounds need')} it.
      </>
    ),
  },
  {
    about: 'lost message',
    asks: 'MIDI messages are lost on the wire',
    right: () => 'Right again at the next stomp, whichever it is.',
    wrong: ({ troubles }) =>
      `${count(soundsIn(troubles), 'sound')} can stay wrong at the next stomp, ${count(troubles.filter((t) => t.never).length, 'of them', 'of them')} however often it is stomped.`,
  },
  {
    about: 'turned knob',
    asks: 'somebody turns a knob of a box',
    right: () => 'Every recall brings it back.',
    wrong: ({ troubles }) => `${count(soundsIn(troubles), 'sound does', 'sounds do')} not bring it back.`,
  },
];

export interface AskedAll {
  readonly answers: ReadonlyMap<Mishap, WhatIfView>;
  /** How much is done, from 0 to 1, while it goes on. */
  readonly done: number | undefined;
  readonly begin: () => void;
  readonly stop: () => void;
}

/** Asks what the usual proof leaves out, anew after every edit, while nothing else waits. */
export const useWhatIfs = (): AskedAll => {
  const { ask, derived } = useRig();
  const [answers, setAnswers] = useState<ReadonlyMap<Mishap, WhatIfView>>(new Map());
  const [done, setDone] = useState<number>();
  const round = useRef(0);
  const begin = useCallback(() => {
    const mine = (round.current += 1);
    setAnswers(new Map());
    setDone(0);
    const tell = (answer: WhatIfView | undefined, part: number) => {
      if (round.current !== mine) return;
      // What is told and the end of the round come by different ways, in any order.
      setDone(part < 1 ? part : undefined);
      if (answer) setAnswers((before) => new Map([...before, [answer.about, answer]]));
    };
    void ask.asking.whatIfs(proxy(tell)).then(() => {
      if (round.current === mine) setDone(undefined);
    });
  }, [ask]);
  const stop = useCallback(() => {
    round.current += 1;
    setDone(undefined);
    void ask.asking.stopAsking();
  }, [ask]);
  useEffect(() => {
    if (derived.stamp === 0 || derived.older) return undefined;
    begin();
    return stop;
  }, [derived.stamp, derived.older, begin, stop]);
  return { answers, done, begin, stop };
};

/** Each question with its answer as the player reads it. */
export const AnswerText = ({ question, answer }: { question: Question; answer: WhatIfView }) => {
  const { fault, troubles, undecided, judged } = answer;
  if (fault !== undefined)
    return <span className="broken">Not answered, by a fault of Yunta: {fault}. The other questions were asked.</span>;
  return (
    <>
      {troubles.length
        ? question.wrong(answer)
        : undecided.length
          ? 'Nothing wrong was found, but not all could be searched.'
          : question.right(judged)}
      {undecided.length > 0 && <span className="broken"> Not decided: {undecided.join(', ')}.</span>}
    </>
  );
};

/** What the answer comes to, beside its words. */
const markOf = (answer: WhatIfView | undefined): { readonly mark: string; readonly looks: string } => {
  if (!answer) return { mark: '', looks: '' };
  if (answer.troubles.length) return { mark: '≠', looks: 'broken' };
  return answer.fault !== undefined || answer.undecided.length
    ? { mark: '?', looks: 'broken' }
    : { mark: '✓', looks: 'proved' };
};

/** What the usual proof leaves out, each question proved apart. */
export const WhatIfs = ({ asked: { answers, done, begin, stop } }: { asked: AskedAll }) => (
  <section className="card what-ifs" aria-labelledby="what-ifs">
    <div className="what-ifs-head">
      <h2 id="what-ifs">And if …</h2>
      {done !== undefined && (
        <>
          <Progress value={done * 100} size="sm" aria-label="Proving what else can go wrong" style={{ flex: 1 }} />
          <Button size="compact-xs" variant="default" onClick={stop}>
            Stop
          </Button>
        </>
      )}
      {done === undefined && answers.size < QUESTIONS.length && (
        <Button size="compact-xs" variant="default" onClick={begin}>
          Prove the rest
        </Button>
      )}
    </div>
    <ul>
      {QUESTIONS.map((q) => (
        <Asked key={q.about} question={q} answer={answers.get(q.about)} waits={done !== undefined} />
      ))}
    </ul>
  </section>
);

const Asked = ({ question, answer, waits }: { question: Question; answer: WhatIfView | undefined; waits: boolean }) => {
  const [open, setOpen] = useState(false);
  const isWrong = answer && answer.troubles.length > 0;
  const { mark, looks } = markOf(answer);
  return (
    <li>
      <div className="what-ifs-line">
        <span className={looks} aria-hidden="true">
          {mark}
        </span>
        <span>… {question.asks}?</span>
        <span className={answer ? '' : 'soft'}>
          {answer ? <AnswerText question={question} answer={answer} /> : waits ? 'proving …' : 'not asked'}
        </span>
        {isWrong ? (
          <Button
            size="compact-xs"
            variant="default"
            aria-expanded={open}
            aria-label={`${open ? 'Hide' : 'Show'} which, if ${question.asks}`}
            onClick={() => setOpen(!open)}
          >
            {open ? 'Hide' : 'Show'}
          </Button>
        ) : (
          <span />
        )}
      </div>
      {open && answer && <Troubles answer={answer} />}
    </li>
  );
};

const headOf = (t: TroubleView): string =>
  t.press
    ? `${t.move} in ${t.name}, ${t.press === 'first' ? 'pressed' : 'taken back'}`
    : t.move
      ? `${t.name}, after ${t.move}`
      : t.name;

const Troubles = ({ answer }: { answer: WhatIfView }) => {
  const [chosen, choose] = useState<string>();
  const navigate = useNavigate();
  const shown = answer.troubles.find((t) => t.id === chosen);
  return (
    <div className="what-ifs-open">
      <ul aria-label="Where it goes wrong">
        {answer.troubles.map((t) => (
          <li key={t.id}>
            <button type="button" aria-pressed={t === shown} onClick={() => choose(t === shown ? undefined : t.id)}>
              <span className="mono soft">{t.slot}</span> <span className="clip">{headOf(t)}</span>{' '}
              {t.waitMs !== undefined && <span className="mono">{t.waitMs} ms</span>}
            </button>
          </li>
        ))}
      </ul>
      {shown && (
        <div>
          <p style={{ margin: '0 0 4px' }}>
            <strong>{headOf(shown)}</strong>: {shown.controls.join(', ')}
          </p>
          <ol className="footsteps" aria-label="Shortest way there">
            {shown.steps.map((s, i) => (
              <li key={i}>
                <span className="n" aria-hidden="true">
                  {i}
                </span>
                <span>
                  <strong>{s.text}</strong>
                  <br />
                  <span className="soft">
                    {shown.text} {s.value}
                    {i === shown.steps.length - 1 ? `; wanted ${shown.wanted}` : ''}
                  </span>
                </span>
              </li>
            ))}
          </ol>
          <Button
            size="xs"
            variant="default"
            onClick={() =>
              void navigate('../bench', {
                state: {
                  play: {
                    name: headOf(shown),
                    control: shown.control,
                    text: shown.text,
                    wanted: shown.wanted,
                    powerUp: shown.powerUp,
                    steps: shown.steps,
                  },
                },
              })
            }
          >
            Play on the bench
          </Button>
        </div>
      )}
    </div>
  );
};
