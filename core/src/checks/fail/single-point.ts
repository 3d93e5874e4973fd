import { singlePoints } from '../../plan/fails/single.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { cutTo } from '../../rig/limits.js';
import type { Check } from '../check.js';
import { boxName } from '../names.js';

/** Fewer sounds than these make nothing indispensable. */
const FEW = 2;
const LONGEST_LIST = 240;

export const singlePoint: Check = {
  code: 'fail.single-point',
  title: 'A box, a lead or a supply whose loss silences every sound',
  severities: ['note'],
  source: 'common practice: know the way out of each before the night',
  *find({ rig, hookup, compilation }) {
    if (compilation.sounds.size < FEW) return;
    const points = singlePoints(compilation);
    const boxes = points.flatMap((f) => (f.is === 'box' ? [f.device] : []));
    const leads = points.flatMap((f) => (f.is === 'cable' ? [f.cable] : []));
    const outputs = points.flatMap((f): readonly Ref[] => (f.is === 'output' ? [f.output] : []));
    const supplies = points.flatMap((f) => (f.is === 'supply' ? [f.device] : []));
    if (points.length === 0) return;
    const names = cutTo([...boxes, ...supplies].map((id) => boxName(rig, id)).join(', '), LONGEST_LIST);
    const counts = [
      counted(boxes, 'box', 'boxes'),
      counted(leads, 'lead', 'leads'),
      counted(outputs, 'supply output', 'supply outputs'),
      counted(supplies, 'supply', 'supplies'),
    ].filter(Boolean);
    const many = points.length > 1;
    yield {
      severity: 'note',
      evidence: [...new Set<Id>([...boxes, ...supplies, ...outputs.map((o) => splitRef(o).device), ...leads])],
      about: hookup.id,
      why: `${listed(counts)} ${many ? 'silence' : 'silences'} every sound by failing${many ? ', each alone' : ''}${names && `: ${names}`}.`,
      remedies: () => [
        {
          id: 'look-up',
          label: 'Read the quickest way out of each on Road, When something dies, and print it for the case',
          promise: 'eases',
          by: 'hand',
        },
      ],
    };
  },
};

const counted = ({ length }: readonly unknown[], one: string, more: string): string =>
  length ? `${length} ${length === 1 ? one : more}` : '';

const listed = (some: readonly string[]): string =>
  some.length > 1 ? `${some.slice(0, -1).join(', ')} and ${some.at(-1) ?? ''}` : (some[0] ?? '');
