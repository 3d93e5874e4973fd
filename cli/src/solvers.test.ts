import { planLoops } from '@yunta/core/plan/loops/plan';
import { cutCost, planCuts, type CutProblem } from '@yunta/core/plan/cut/cut';
import type { LoopsProblem } from '@yunta/core/plan/loops/problem';
import { highsSolver, type Solver } from '@yunta/core/plan/solver';
import { askCbc } from '@yunta/core/testing/cbc';
import { Random } from '@yunta/core/testing/random';
import loadHighs from 'highs';

/** Reference: CBC, another solver of integer programmes, on problems that are made up. */
test('HiGHS, which ships, and CBC keep as many sounds in fewer loops on 200 problems, and prove the same', async () => {
  const highs: Solver = highsSolver(await loadHighs());
  for (let seed = 1; seed <= 200; seed += 1) {
    const r = new Random(seed);
    const boxes = r.int(3, 6);
    const sounds = Array.from({ length: r.int(3, 8) }, () => Array.from({ length: boxes }, () => r.int(0, 1) === 1));
    const problem: LoopsProblem = { boxes: Array.from({ length: boxes }, (_, i) => `B${i}`), sounds };
    const loops = r.int(1, 3);
    const [ours, theirs] = [highs, askCbc].map((solver) => planLoops(problem, loops, solver, 20));
    expect([seed, ours?.kept.length, ours?.bound]).toEqual([seed, theirs?.kept.length, theirs?.bound]);
  }
});

test('HiGHS and CBC cut as many leads of as little cable on 60 problems, and prove it', async () => {
  const highs: Solver = highsSolver(await loadHighs());
  for (let seed = 1; seed <= 60; seed += 1) {
    const r = new Random(seed);
    const lengths = (many: number, least: number, most: number) =>
      Array.from({ length: many }, (_, i) => ({ id: `${most} ${i}`, cm: r.int(least, most) }));
    const problem: CutProblem = { pieces: lengths(r.int(1, 12), 10, 90), reels: lengths(r.int(1, 4), 50, 300) };
    const [ours, theirs] = [highs, askCbc].map((solver) => planCuts(problem, solver, 20));
    const cost = (plan: typeof ours) => plan && { ...cutCost(problem, plan.cuts), isProved: plan.isProved };
    expect([seed, cost(ours)]).toEqual([seed, cost(theirs)]);
    expect(cost(ours)?.wrong).toEqual([]);
  }
});
