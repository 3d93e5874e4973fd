import type { Drill } from '@yunta/core/derive/views/drill';
import type { DrillScore, ScoredCue, StepMark } from '@yunta/core/derive/views/drill-score';
import { minutesText } from '@yunta/core/units/minutes';

const markText = (mark: StepMark): string => {
  if (mark.is === 'missed') return 'missed';
  return mark.is === 'on time' ? 'on time' : `${Math.abs(mark.ms)} ms ${mark.is}`;
};
const SIGNS = { 'on time': '●', early: '◂', late: '▸', missed: '×' } as const;

/** How a round went: each switch, what was hit beside, and what sounded that should not. */
export const Outcome = ({ drill, score, isWhole }: { drill: Drill; score: DrillScore; isWhole: boolean }) => (
  <section className="drill-outcome" aria-label="How it went">
    <h1 role="status">
      {score.onTime} of {score.wanted} on time{score.wrong.length > 0 && `, ${score.wrong.length} wrong`}
    </h1>
    <table>
      <tbody>
        {score.cues.map((cue, i) => (
          <CueRow key={`${i} ${cue.name}`} cue={cue} />
        ))}
      </tbody>
    </table>
    {score.wrong.length > 0 && (
      <ul>
        {score.wrong.map((hit, i) => (
          <li key={i}>
            At {minutesText(Math.max(0, hit.seconds))} <strong className="mono">{hit.text}</strong> was hit, and nothing
            wanted it{hit.sound ? `: “${hit.sound}” would have sounded` : ''}.
          </li>
        ))}
      </ul>
    )}
    {score.wanted > 0 && score.onTime === score.wanted && score.wrong.length === 0 && (
      <p>
        {isWhole
          ? `All of ${drill.title} is in your feet.`
          : 'That is in your feet. Now the whole song as fast as it is.'}
      </p>
    )}
  </section>
);

const CueRow = ({ cue }: { cue: ScoredCue }) => (
  <tr>
    <th scope="row">{cue.name}</th>
    <td>
      {cue.steps.length === 0
        ? 'nothing to hit'
        : cue.steps.map((step, k) => (
            <span key={k} className={`drill-mark drill-${step.mark.is.replace(' ', '-')}`}>
              <strong className="mono">{step.text}</strong> {SIGNS[step.mark.is]} {markText(step.mark)}
            </span>
          ))}
    </td>
    <td>
      {cue.wrong.map(({ sound, seconds }) => (
        <span key={sound}>
          “{sound}” for {seconds.toFixed(1)} s instead
        </span>
      ))}
    </td>
  </tr>
);
