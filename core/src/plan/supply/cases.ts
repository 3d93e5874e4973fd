import { z } from 'zod';
import { ok, refuse, type Result } from '../../rig/result.js';
import { readJson } from '../../rig/read-json.js';
import type { SupplyProblem } from './problem.js';

export interface SupplyCase {
  readonly id: string;
  readonly problem: SupplyProblem;
}

const volts = z.array(z.number().positive()).min(1);
const milliamps = z.number().min(0);
const shape = z.object({
  id: z.string(),
  daisy: z.boolean().optional(),
  outputs: z.array(z.object({ id: z.string(), volts, mA: z.number().positive(), ac: z.boolean(), group: z.string() })),
  total: z.object({ W: z.number().positive() }).optional(),
  bridges: z.array(z.object({ outputs: z.array(z.string()).min(2), adds: z.enum(['mA', 'volts']) })),
  boxes: z.array(
    z.object({
      id: z.string(),
      volts,
      mA: milliamps,
      ac: z.boolean(),
      centre: z.enum(['negative', 'positive']),
      plug: z.string(),
      noise: z.enum(['digital', 'gain', 'none']),
    }),
  ),
  adapters: z.object({ polarity: z.number().min(0).nullable(), plug: z.number().min(0).nullable() }),
});

const twice = (ids: readonly string[]): string | undefined => ids.find((id, i) => ids.indexOf(id) !== i);

/** What is wrong with a case that has the right form. */
const wrongIn = ({ outputs, boxes, bridges }: SupplyProblem): string | undefined => {
  const double = twice(outputs.map((o) => o.id)) ?? twice(boxes.map((b) => b.id));
  if (double !== undefined) return `Two things are called ${double}.`;
  const strange = bridges.flatMap((b) => b.outputs).find((id) => !outputs.some((o) => o.id === id));
  return strange === undefined ? undefined : `A bridge joins the output ${strange}, and there is none.`;
};

/** Cases of feeding boxes, as a file holds them: docs/formats.md. */
export const readSupplyCases = (text: string): Result<readonly SupplyCase[]> => {
  const read = readJson('supply', z.object({ cases: z.array(shape).min(1) }), text);
  if (!read.ok) return read;
  const cases: SupplyCase[] = [];
  for (const { id, daisy, total, ...rest } of read.value.cases) {
    const problem: SupplyProblem = {
      ...rest,
      ...(daisy ? { daisy } : {}),
      ...(total ? { totals: [{ outputs: rest.outputs.map((o) => o.id), W: total.W }] } : {}),
    };
    const wrong = wrongIn(problem);
    if (wrong) return refuse({ code: 'supply', where: id, wrong, would: 'Mend that case in the file.' });
    cases.push({ id, problem });
  }
  return ok(cases);
};
