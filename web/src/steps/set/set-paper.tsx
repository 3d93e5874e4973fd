import type { SetSheet } from '@yunta/core/derive/views/set-sheet';
import type { StageSong } from '@yunta/core/derive/views/stage';
import type { SetList } from '@yunta/core/rig/show';
import { useAsked } from '../../shared/rig-context.js';
import { Paper } from '../../shared/paper/paper.js';

const COMES = { break: 'Break', encore: 'Encore', spare: 'Spare' } as const;

/** As large as all of it fits on one page, Letter lying upright, in points. */
const [PAGE, LINE, LARGEST, LEAST] = [620, 1.3, 40, 14];
const sizeFor = ({ songs }: SetSheet): number => {
  const lines = songs.length + songs.filter((s) => s.comes).length;
  return Math.max(LEAST, Math.min(LARGEST, Math.floor(PAGE / (LINE * Math.max(1, lines)))));
};

/** The set on paper: first the list that lies on the floor, in huge type; then the cues of each song. */
export const SetPaper = ({ list, sheet }: { list: SetList; sheet: SetSheet }) => {
  const night = useAsked(['stage', list.id], (worker) => worker.night.stage(list.id));
  return (
    <Paper title={list.name}>
      <ol className="paper-set" style={{ fontSize: `${sizeFor(sheet)}pt` }}>
        {sheet.songs.map((song) => (
          <li key={song.song}>
            {song.comes && <p className="paper-mark">{COMES[song.comes]}</p>}
            <strong>{song.title}</strong>
            {song.changes.length > 0 && <span> {song.changes.map((c) => c.text).join(', ')}</span>}
          </li>
        ))}
      </ol>
      {sheet.reserve.length > 0 && (
        <p className="paper-reserve">
          In reserve: {sheet.reserve.map((r) => (r.hit ? `${r.name} ${r.hit}` : r.name)).join(', ')}
        </p>
      )}
      {night?.songs.some((s) => s.cues.length > 0) && (
        <section className="paper-cues">
          {night.songs.map((song, i) => (
            <Cues key={`${i} ${song.title}`} song={song} at={i + 1} />
          ))}
        </section>
      )}
    </Paper>
  );
};

const Cues = ({ song, at }: { song: StageSong; at: number }) =>
  song.cues.length === 0 ? null : (
    <section>
      <h2>
        {at}. {song.title} {song.facts.length > 0 && <small>{song.facts.join(', ')}</small>}
      </h2>
      <table>
        <tbody>
          {song.cues.map((cue, k) => (
            <tr key={`${k} ${cue.name}`}>
              <td>{cue.name}</td>
              <td className="named">{[cue.bank, cue.hit].filter(Boolean).join(', ')}</td>
              <td>{cue.sound}</td>
              <td>{cue.hands.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
