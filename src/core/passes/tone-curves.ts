import { curve, curveAt, isStraight, STRAIGHT } from '../params/curve';
import { definePass } from './define';

const STEPS = 1024;
const channel = (label: string, tone: 'red' | 'green' | 'blue') =>
  curve({ label, tone, default: STRAIGHT, help: `What becomes of ${label.toLowerCase()}, after the curve of all.` });

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
  prepare(v, { kernels, arena, scratch }) {
    const at = scratch(3 * STEPS * 8);
    const tables = arena.floats(at, 3 * STEPS * 2);
    [v.red, v.green, v.blue].forEach((own, c) => {
      const bent = (i: number) => curveAt(own, curveAt(v.all, (2 * i) / STEPS));
      for (let i = 0, to = c * STEPS * 2, value = bent(0); i < STEPS; i++) {
        const next = bent(i + 1);
        tables[to++] = value;
        tables[to++] = next - value;
        value = next;
      }
    });
    return (src, dst, n) => kernels.adjustSpan(src, dst, n, at, STEPS, 1);
  },
});
