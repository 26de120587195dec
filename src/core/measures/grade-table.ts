import { latticeOf, type ColourTable } from '../formats/cube';
import { Picture } from '../picture/picture';
import type { PassPlan } from '../plan/types';
import { defineMeasure } from './define';

export const gradeTable = defineMeasure({
  help: 'What passes that look at each pixel by itself make of every colour, as a lattice.',
  async run(
    of,
    { passes, size, title }: { passes: readonly PassPlan[]; size: number; title: string },
  ): Promise<ColourTable> {
    const inputs = latticeOf(size);
    const picture = Picture.make(of.arena, { x: 0, y: 0, w: size, h: size * size });
    const floats = of.arena.floats(picture.at, picture.pixels * 4);
    for (let i = 0; i < picture.pixels; i++)
      floats.set([inputs[i * 3]!, inputs[i * 3 + 1]!, inputs[i * 3 + 2]!, 1], i * 4);
    const out = of.through(passes, picture);
    const values = new Float32Array(inputs.length);
    const graded = of.arena.floats(out.at, out.pixels * 4);
    for (let i = 0; i < out.pixels; i++) for (let c = 0; c < 3; c++) values[i * 3 + c] = graded[i * 4 + c]!;
    out.release();
    return { title, dimensions: 3, size, from: [0, 0, 0], to: [1, 1, 1], values };
  },
});
