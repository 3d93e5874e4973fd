import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { LEVEL_UNITS, type LevelUnit } from '../rig/sound.js';

/** A level as a meter shows it. */
export interface ReadLevel {
  readonly db: number;
  readonly unit: LevelUnit;
}

const AS = 'Write it as the meter shows it: 94 dBA, −23 LUFS, −18.5 dBFS or +4 dBu.';
/** The highest and lowest that there can be: a full digital signal is 0 dBFS; above 194 dB air itself clips. */
const BOUNDS: Readonly<Record<LevelUnit, readonly [number, number, string]>> = {
  dBFS: [-144, 0, 'No digital signal is louder than 0 dBFS.'],
  LUFS: [-100, 6, 'No programme is louder than about 3 LUFS.'],
  dBu: [-130, 60, 'No output gives more than 60 dBu.'],
  dBA: [0, 194, 'Above 194 dB there is no sound in air.'],
};

/** A level that somebody typed; undefined where the text is empty. @example readLevel('−23 LUFS') */
export const readLevel = (text: string): Result<ReadLevel | undefined, readonly Refusal[]> => {
  const typed = text.trim();
  const wrong = (what: string) => refuse([{ code: 'level', where: 'Measured level', wrong: what, would: AS }]);
  if (typed === '') return ok(undefined);
  const found = /^([-−+]?\d+(?:[.,]\d+)?)\s*([a-z]+)$/i.exec(typed);
  const unit = LEVEL_UNITS.find((u) => u.toLowerCase() === found?.[2]?.toLowerCase());
  const number = found?.[1];
  if (!unit || number === undefined) return wrong(`"${typed.slice(0, 30)}" cannot be read as a level.`);
  const db = Number(number.replace('−', '-').replace(',', '.'));
  const [low, high, why] = BOUNDS[unit];
  if (db > high) return wrong(why);
  return db < low ? wrong(`${db} ${unit} is less than any meter shows.`) : ok({ db, unit });
};

/** @example levelText({ db: -23, unit: 'LUFS' }) // '−23 LUFS' */
export const levelText = ({ db, unit }: ReadLevel): string => `${String(db).replace('-', '−')} ${unit}`;
