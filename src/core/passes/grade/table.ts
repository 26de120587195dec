import { number } from '../../params/number';
import { table } from '../../params/table';
import { definePass } from '../define';
import { channelTables } from './tables';

/** A colour table: a look made elsewhere, one- or three-dimensional, between whose points tetrahedra are taken. */
export const colourTable = definePass({
  type: 'table',
  title: 'Table',
  group: 'grade',
  words: ['lut', 'cube', 'look', 'look-up table', 'film look', 'import a look', '3d lut', 'preset'],
  help: 'Gives the picture a look from a .cube file. Any layer’s grade can be saved as one. Relatives: Slope, offset, power.',
  params: {
    table: table({ label: 'Table', help: 'A .cube file, one- or three-dimensional.' }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of the look is taken.',
    }),
  },
  idle: (v) => v.table === null || v.strength === 0,
  prepare(v, tools) {
    const { kernels, arena, scratch } = tools;
    const { size, dimensions, from, to } = v.table!;
    const values = tools.table(v.table!);
    if (!values) return (src, dst, n) => kernels.copy(src, dst, n);
    if (dimensions === 1) {
      const of =
        (c: 0 | 1 | 2) =>
        (x: number): number => {
          const at = Math.min(1, Math.max(0, (x - from[c]) / (to[c] - from[c]))) * (size - 1);
          const k = Math.min(size - 2, Math.floor(at));
          const [a, b] = [values[k * 4 + c]!, values[k * 4 + 4 + c]!];
          return Math.max(0, x + (a + (b - a) * (at - k) - x) * v.strength);
        };
      const curves = channelTables([of(0), of(1), of(2)], tools);
      return (src, dst, n) => kernels.adjustSpan(src, dst, n, curves.at, curves.steps, 1);
    }
    const at = scratch(values.length * 4);
    arena.floats(at, values.length).set(values);
    const domain = scratch(6 * 4);
    arena.floats(domain, 6).set([...from, ...to]);
    return (src, dst, n) => kernels.latticeSpan(src, dst, n, at, size, domain, v.strength);
  },
});
