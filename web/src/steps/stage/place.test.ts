import type { Stage } from '@yunta/core/derive/views/stage';
import fc from 'fast-check';
import { nextPlace, otherSong, placeBefore, placeIn, type Place } from './place.js';

const night = (lengths: readonly number[]): Stage => ({
  name: 'Night',
  isListed: false,
  reserve: [],
  songs: lengths.map((n, i) => ({
    title: `Song ${i}`,
    facts: [],
    cues: Array.from({ length: n }, (_, k) => ({ name: `cue ${k}`, hands: [], rings: [] })),
  })),
});
const nights = fc.array(fc.nat(5), { minLength: 1, maxLength: 8 }).map(night);
/** Every place of a night by going on from its beginning. */
const walked = (stage: Stage): readonly Place[] => {
  const places: Place[] = [{ song: 0, cue: 0 }];
  for (let at = nextPlace(stage, places[0]!); ; at = nextPlace(stage, at)) {
    const last = places.at(-1)!;
    if (at.song === last.song && at.cue === last.cue) return places;
    places.push(at);
  }
};

test('going on meets every cue of every song once, a song without cues as one place; going back meets them again', () => {
  fc.assert(
    fc.property(nights, (stage) => {
      const places = walked(stage);
      const wanted = stage.songs.flatMap((s, song) =>
        Array.from({ length: Math.max(1, s.cues.length) }, (_, cue) => ({ song, cue })),
      );
      expect(places).toEqual(wanted);
      let at = places.at(-1)!;
      for (const before of [...places].reverse().slice(1)) expect((at = placeBefore(stage, at))).toEqual(before);
      expect(placeBefore(stage, at)).toEqual({ song: 0, cue: 0 });
    }),
  );
});
test('any place, also one of a longer night, is brought into this one', () => {
  fc.assert(
    fc.property(nights, fc.integer(), fc.integer(), (stage, song, cue) => {
      const place = placeIn(stage, { song, cue });
      expect(walked(stage)).toContainEqual(place);
      expect(walked(stage)).toContainEqual(otherSong(stage, place, 1));
      expect(otherSong(stage, place, -1).cue).toBe(0);
    }),
  );
  expect(placeIn(night([]), { song: 4, cue: 2 })).toEqual({ song: 0, cue: 0 });
});
