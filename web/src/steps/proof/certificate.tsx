import { headline, SIGNS, verdictText } from '@yunta/core/recall/words/verdict-words';
import { rigName } from '@yunta/core/rig/rig';
import { useRig } from '../../shared/rig-context.js';
import { Ways } from './ways.js';
import { AnswerText, QUESTIONS, type AskedAll } from './what-ifs.js';

/**
 * On paper: what was proved, against what, under which assumptions, of which revision. The assumptions are there to be
 * ticked at the line check.
 */
export const Certificate = ({ answers }: { answers: AskedAll['answers'] }) => {
  const { rig, hookup, view } = useRig();
  if (!view || !hookup) return null;
  return (
    <div className="print-only certificate">
      <h1>Does every sound come back? {rigName(rig)}</h1>
      <p>
        Hook-up {hookup.name}, revision {rig.revision}, {new Date().toLocaleDateString()}.{' '}
        <strong>{headline(view.tally, view.limbs)}</strong> A sound comes back when it is called, is heard with all that
        it wants, and from every state that can be reached its recall brings everything that it asks for, with nothing
        else to do. Reckoned with were {view.controls} controls, which can stand in <Ways /> (values that no sound and
        no program names count as one), and {view.events} things that can happen to them, one after another in any
        order, however often. No state that can be reached so was left out.
      </p>
      <h2>Reckoned with</h2>
      <ul>
        {view.reckoned.with.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      <h2>Not reckoned with</h2>
      <ul>
        {view.reckoned.without.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      <h2>Proved apart: and if …</h2>
      <ul>
        {QUESTIONS.map((q) => {
          const answer = answers.get(q.about);
          return (
            <li key={q.about}>
              … {q.asks}? <strong>{answer ? <AnswerText question={q} answer={answer} /> : 'Not asked.'}</strong>
            </li>
          );
        })}
      </ul>
      <h2>To be checked before the show, because it is taken for granted</h2>
      {view.granted.length + view.homes.length === 0 ? (
        <p>Nothing.</p>
      ) : (
        <ul className="certificate-check">
          {view.granted.map((g) => (
            <li key={g.control}>
              ☐ {g.text} <small>{g.why}</small>
            </li>
          ))}
          {view.homes.map((home) => (
            <li key={home}>
              ☐ {home} <small>turned back after it</small>
            </li>
          ))}
        </ul>
      )}
      <h2>Sounds</h2>
      <table className="plain">
        <tbody>
          {view.sounds.map((s) => (
            <tr key={s.id}>
              <td className="mono">{s.slot}</td>
              <td>{s.name}</td>
              <td>
                {SIGNS[s.verdict]} {verdictText(s)}
                {s.because ? `. ${s.because}` : ''}
                {s.shortest
                  ? `: ${s.shortest.text}, after ${s.shortest.steps
                      .slice(1)
                      .map((x) => x.text)
                      .join(', ')}`
                  : ''}
                {s.byFoot.length ? (
                  <>
                    <br />☐ by foot: {s.byFoot.join('; ')}
                  </>
                ) : null}
                {s.byHand.length ? (
                  <>
                    <br />☐ by hand: {s.byHand.join('; ')}
                  </>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};
