import { curve, curveOf, isStraight, STRAIGHT, type CurvePoint } from '../../params/curve';
import { definePass } from '../define';
import type { ChannelCurves } from '../define';
import { curveRunner } from './tables';

const channel = (label: string, tone: 'red' | 'green' | 'blue') =>
  curve({ label, tone, default: STRAIGHT, help: `What becomes of ${label.toLowerCase()}, after the curve of all.` });

function curvesOf(v: Record<'all' | 'red' | 'green' | 'blue', readonly CurvePoint[]>): ChannelCurves {
  const all = curveOf(v.all);
  const of = (points: readonly CurvePoint[]) => {
    const own = curveOf(points);
    return (x: number) => own(all(x));
  };
  return { of: [of(v.red), of(v.green), of(v.blue)], saturation: 1 };
}

/** Tone curves: what becomes of each display-encoded value, for all channels and for each by itself. */
export const toneCurves = definePass({
  type: 'tone-curves',
  title: 'Tone curves',
  group: 'grade',
  words: ['curve', 'contrast', 'fade blacks', 'colour correction', 'grade', 'levels', 'cross process', 'look'],
  help: 'Bends the tones: what goes up becomes brighter, a steep part gains contrast. One curve for all channels, then one for each. Relatives: Adjust.',
  params: {
    all: curve({ label: 'All channels', default: STRAIGHT, help: 'What becomes of each value of every channel.' }),
    red: channel('Red', 'red'),
    green: channel('Green', 'green'),
    blue: channel('Blue', 'blue'),
  },
  idle: (v) => [v.all, v.red, v.green, v.blue].every(isStraight),
  curves: (v) => curvesOf(v),
  prepare: (v, tools) => curveRunner(curvesOf(v), tools),
});
