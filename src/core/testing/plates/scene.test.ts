// The truth that keys are judged by has to be true itself.
import { expect, test } from '@jest/globals';
import { toLinear } from '../../picture/light';
import { cloud, diceOf, gauss } from './dice';
import { averaged, softened, type Planes } from './planes';
import { sceneOf, type Frame } from './scene';

const { abs, ceil, hypot, max, min } = Math;
const SMALL = { w: 240, h: 136 };
const SEEDS = [1, 4, 7];
const total = (plane: ArrayLike<number>) => Array.from(plane).reduce((sum, v) => sum + v, 0);
const square = (): Planes =>
  [0.2, 0.4, 0.6, 1].map((v) =>
    Float32Array.from({ length: 60 * 40 }, (_, i) => (abs((i % 60) - 25) < 6 && abs(ceil(i / 60) - 20) < 6 ? v : 0)),
  ) as unknown as Planes;
const middle = (plane: Float32Array) => plane.reduce((sum, v, i) => sum + v * (i % 60), 0) / total(plane);

test('what moves while the shutter is open keeps its amount, and its middle is where it was said to be', () => {
  const still = square();
  const moved = averaged(still, { w: 60, h: 40 }, [7.5, 0], [12, 3]);
  for (const c of [0, 3]) expect(total(moved[c]!)).toBeCloseTo(total(still[c]!), 1);
  expect(middle(moved[3]) - middle(still[3])).toBeCloseTo(7.5, 1);
  const wide = (plane: Float32Array) => plane.filter((v) => v > 0.02 && v < 0.98).length;
  expect(wide(moved[3])).toBeGreaterThan(wide(averaged(still, { w: 60, h: 40 }, [0, 0], [2, 0])[3]) * 3);
});

test('softening keeps the amount and has the width that it says', () => {
  const dot = [0, 0, 0, 0].map(() => new Float32Array(60 * 40)) as unknown as Planes;
  dot[3][20 * 60 + 30] = 1;
  const soft = softened(dot, { w: 60, h: 40 }, 4)[3];
  expect(total(soft)).toBeCloseTo(1, 4);
  const variance = soft.reduce((sum, v, i) => sum + v * ((i % 60) - 30) ** 2, 0);
  expect(abs(Math.sqrt(variance) - 4)).toBeLessThan(0.5);
});

test('chance comes from its seed alone, and has the spread that it says', () => {
  const [a, b, c] = [diceOf(5), diceOf(5), diceOf(6)];
  const first = Array.from({ length: 20 }, a);
  expect(Array.from({ length: 20 }, b)).toEqual(first);
  expect(Array.from({ length: 20 }, c)).not.toEqual(first);
  const many = Array.from({ length: 4000 }, () => gauss(a));
  expect(abs(total(many) / 4000)).toBeLessThan(0.06);
  expect(abs(total(many.map((v) => v * v)) / 4000 - 1)).toBeLessThan(0.1);
  const noise = cloud(3, 20, 4, 0.5);
  const values = Array.from({ length: 3000 }, (_, i) => noise(i * 1.7, i * 0.9));
  expect(max(...values)).toBeLessThanOrEqual(1);
  expect(min(...values)).toBeGreaterThanOrEqual(-1);
  expect(noise(12.3, 4.5)).toBe(cloud(3, 20, 4, 0.5)(12.3, 4.5));
});

/** Mean linear light of the pixels whose true matte is within a range, as they are seen and as the truth has it. */
function lightWhere({ pixels, truth }: Frame, from: number, to: number) {
  const sums = { seen: [0, 0, 0], own: [0, 0, 0], count: 0 };
  for (let i = 0; i < truth.length; i += 4) {
    const alpha = truth[i + 3]! / 255;
    if (alpha < from || alpha > to) continue;
    for (let c = 0; c < 3; c++) {
      sums.seen[c]! += toLinear(pixels[i + c]! / 255);
      sums.own[c]! += toLinear(truth[i + c]! / 255);
    }
    sums.count++;
  }
  return {
    seen: sums.seen.map((v) => v / sums.count),
    own: sums.own.map((v) => v / sums.count),
    count: sums.count,
  };
}

test.each(SEEDS)(
  'seed %i: clear is screen, solid is the subject and the light thrown on it, half clear lies between',
  (seed) => {
    const { traits, frames } = sceneOf(seed, { size: SMALL });
    expect(sceneOf(seed, { count: 1, size: SMALL }).traits).toEqual(traits);
    expect(frames[1]!.pixels).not.toEqual(frames[0]!.pixels);
    const main = traits.screen === 'green' ? 1 : 2;
    for (const frame of frames) {
      const [screen, solid] = [lightWhere(frame, 0, 0), lightWhere(frame, 0.99, 1)];
      expect(screen.count).toBeGreaterThan(2000);
      expect(screen.seen[main]!).toBeGreaterThan(1.5 * max(screen.seen[0]!, screen.seen[3 - main]!));
      if (!solid.count) continue; // a subject so small and so soft has no solid inside
      const thrown = [0, 1, 2].map((c) => solid.seen[c]! - solid.own[c]!);
      // what is thrown on it is the screen's light, and no more of it than the spill says
      expect(thrown[main]!).toBeGreaterThan(max(thrown[0]!, thrown[3 - main]!) - 0.01);
      expect(hypot(...thrown)).toBeLessThan(0.5 * traits.spill * hypot(...screen.seen) + 0.02);
    }
  },
);
