import { beforeAll, describe, expect, test } from '@jest/globals';
import { firstValues } from '../params/registry';
import { testRig, wholeFloats, type TestRig } from '../testing/rig';
import type { DrawnSource } from './define';
import { waysOf, type Way } from './figure';
import { shape } from './shape';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const SIZE = { w: 160, h: 120 };
const VALUES = Object.fromEntries(
  Object.entries(firstValues(shape.params)).map(([name, value]) => [name, (value as { still: unknown }).still]),
);
function drawn(values: Record<string, unknown>): Float32Array {
  const tools = { ...rig, size: SIZE, line: () => ({}) as never, picture: () => null };
  const picture = (shape as unknown as DrawnSource).draw(
    { ...VALUES, width: 90, height: 70, ...values } as never,
    tools,
  );
  const floats = wholeFloats(rig, picture, SIZE);
  picture.release();
  return floats;
}
const pixel = (floats: Float32Array, x: number, y: number): number[] => [
  ...floats.subarray((y * SIZE.w + x) * 4, (y * SIZE.w + x) * 4 + 4),
];

/** Whether a place lies within a ring that does not cross itself. */
function within(ring: Float64Array, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
    if (y0 > y !== y1 > y && x < ((x1 - x0) * (y - y0)) / (y1 - y0) + x0) inside = !inside;
  }
  return inside;
}

describe('a shape', () => {
  test.each(['rectangle', 'ellipse', 'polygon', 'star', 'arrow'])(
    '%s covers what 16×16 samples a pixel find within it',
    (form) => {
      const values = { form, line: 0, radius: form === 'rectangle' ? 13 : 0 };
      const floats = drawn(values);
      const [{ ring }] = waysOf({ ...VALUES, width: 90, height: 70, ...values } as never) as [Way];
      let [sum, worst] = [0, 0];
      for (let y = 0; y < SIZE.h; y++)
        for (let x = 0; x < SIZE.w; x++) {
          const cover = floats[(y * SIZE.w + x) * 4 + 3]!;
          const solid = cover === 0 || cover === 1;
          let count = 0;
          // what is wholly in or out is looked at in its middle alone
          const n = solid ? 1 : 16;
          for (let v = 0; v < n; v++)
            for (let u = 0; u < n; u++)
              if (within(ring, x + (u + 0.5) / n - SIZE.w / 2, y + (v + 0.5) / n - SIZE.h / 2)) count++;
          const error = Math.abs(cover - count / n ** 2);
          sum += error;
          worst = Math.max(worst, error);
        }
      expect(sum / (SIZE.w * SIZE.h)).toBeLessThan(1 / 255);
      expect(worst).toBeLessThan(8 / 255); // a sixteenth of a side is 16 of 255 samples, half of which may be off at an edge
    },
  );

  test('has its fill inside, its line along the edge and nothing around; without a fill it is hollow', () => {
    const white = [1, 1, 1];
    const both = drawn({ form: 'rectangle', colour: [1, 0, 0], line: 8, lineColour: white, lies: 'inside' });
    expect(pixel(both, 80, 60)).toEqual([1, 0, 0, 1]);
    expect(pixel(both, 80 - 45 + 4, 60)).toEqual([1, 1, 1, 1]);
    expect(pixel(both, 80 - 45 - 2, 60)).toEqual([0, 0, 0, 0]);
    const hollow = drawn({ form: 'ellipse', fill: 'none', line: 8 });
    expect(pixel(hollow, 80, 60)).toEqual([0, 0, 0, 0]);
  });

  test('filled with colours it has the first at one end and the last at the other', () => {
    const colours = [
      [0, [1, 0, 0]],
      [1, [0, 0, 1]],
    ];
    const run = drawn({ form: 'rectangle', fill: 'ramp', colours, run: 0, line: 0 });
    const [left, right] = [pixel(run, 36, 60), pixel(run, 123, 60)];
    expect(left[0]).toBeCloseTo(1 - 1.5 / 90, 2);
    expect(right[2]).toBeCloseTo(1 - 1.5 / 90, 2);
    expect(pixel(run, 20, 60)).toEqual([0, 0, 0, 0]);
  });

  test('a line writes itself: half of it is there half way', () => {
    const half = drawn({ form: 'line', line: 10, to: 0.5, cap: 'flat' });
    expect(pixel(half, 80 - 40, 60)[3]).toBe(1);
    expect(pixel(half, 80 + 5, 60)[3]).toBe(0);
  });
});
