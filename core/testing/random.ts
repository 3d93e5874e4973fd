import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Seeded randomness for random rigs and walks: the same seed gives the same rig on every machine. */
export class Random {
  private readonly generator;

  constructor(seed: number) {
    this.generator = xoroshiro128plus(seed);
  }

  int(least: number, most: number): number {
    return uniformInt(this.generator, least, most);
  }

  chance(percent: number): boolean {
    return this.int(1, 100) <= percent;
  }

  pick<T>(from: readonly T[]): T {
    return from[this.int(0, from.length - 1)]!;
  }

  some<T>(from: readonly T[], percent: number): T[] {
    return from.filter(() => this.chance(percent));
  }
}
