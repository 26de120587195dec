import type { CoveragePlan } from '../masks/coverage';
import { defineMeasure } from './define';

export const coverage = defineMeasure({
  help: 'What masks cover of a layer’s whole source, 0…255.',
  async run(of, plan: CoveragePlan): Promise<{ w: number; h: number; values: Uint8Array<ArrayBuffer> }> {
    const { w, h, plane } = await of.coverage(plan);
    const values = new Uint8Array(w * h);
    for (let i = 0; i < values.length; i++) values[i] = Math.round(plane[i]! * 255);
    return { w, h, values };
  },
});
