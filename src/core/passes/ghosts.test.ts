import { beforeAll, expect, test } from '@jest/globals';
import { toLinear } from '../picture/light';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [320, 200];
/** The light alone, linear, of a picture with lamps of 12 pixels by 12 on black. */
function lightOf(values: Record<string, unknown>, lamps: readonly (readonly [number, number])[] = []) {
  const lit = (x: number, y: number) => lamps.some(([u, v]) => Math.abs(x + 0.5 - u) < 6 && Math.abs(y + 0.5 - v) < 6);
  const pixels = Array.from({ length: W * H }, (_, i) => {
    const v = lit(i % W, Math.floor(i / W)) ? 1 : 0;
    return [v, v, v, 1];
  });
  const out = runPass(
    rig,
    'ghosts',
    { blades: 0, alone: 'light', ...values },
    pictureOf(rig, { x: 0, y: 0, w: W, h: H }, pixels.flat()),
  );
  const [floats, { rect }] = [floatsOf(rig, out), out];
  out.release();
  const at = (x: number, y: number) =>
    [0, 1, 2].map((c) => toLinear(floats[((y - rect.y) * rect.w + x - rect.x) * 4 + c]!));
  /** Where the light lies, and how much of it there is. */
  const middle = (of: (x: number, y: number) => boolean = () => true) => {
    let [sum, u, v] = [0, 0, 0];
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        if (!of(x, y)) continue;
        const [, g] = at(x, y);
        [sum, u, v] = [sum + g!, u + g! * (x + 0.5), v + g! * (y + 0.5)];
      }
    return { sum, x: u / sum, y: v / sum };
  };
  return { at, middle };
}

test('a point’s first ghost lies on the other side of the middle, half as far, as large as said and in its tint', () => {
  const point = [W / 2 + 90, H / 2 - 50];
  const { at, middle } = lightOf({ of: 'point', at: point, count: 1, size: 24, strength: 2, coloured: 1 });
  const [cx, cy] = [W / 2 - 45, H / 2 + 25];
  const found = middle();
  expect(Math.hypot(found.x - cx, found.y - cy)).toBeLessThan(1);
  const inside = at(Math.round(cx), Math.round(cy));
  [0.55, 0.8, 1].forEach((tint, c) => expect(Math.abs(inside[c]! / (0.25 * 2 * 0.9 * tint) - 1)).toBeLessThan(0.06));
  // within its radius it is even, beyond it nothing is lit
  expect(at(Math.round(cx + 16), Math.round(cy))[1]! / inside[1]!).toBeGreaterThan(0.9);
  expect(at(Math.round(cx + 32), Math.round(cy))[1]!).toBeLessThan(0.01);
});

test('bright parts are thrown over the middle too, half as large by the first ghost; what is dark is not', () => {
  const lamp = [W / 2 - 80, H / 2 - 40] as const;
  const { middle } = lightOf({ count: 1, size: 20, strength: 1, threshold: 0.5, coloured: 0 }, [lamp]);
  const found = middle();
  expect(Math.hypot(found.x - (W / 2 + 40), found.y - (H / 2 + 20))).toBeLessThan(1.5);
  // the lamp's light above the threshold, on a picture of it half as large each way, times how bright the first ghost is
  expect(Math.abs(found.sum / (0.25 * 12 * 12 * (1 - toLinear(0.5)) * 0.9) - 1)).toBeLessThan(0.08);
  expect(lightOf({ threshold: 0.5 }).middle().sum).toBe(0);
});

test('further ghosts lie along the line, nearer or further as wished', () => {
  const point = [W / 2 + 60, H / 2];
  for (const spread of [0.8, 1.2]) {
    const { middle } = lightOf({ of: 'point', at: point, count: 2, size: 10, spread, coloured: 0 });
    const [first, second] = [middle((x) => x < W / 2), middle((x) => x > W / 2)];
    expect(Math.abs(first.x - (W / 2 - 30 * spread))).toBeLessThan(1.5);
    expect(Math.abs(second.x - (W / 2 + 27 * spread))).toBeLessThan(1.5);
    for (const { y } of [first, second]) expect(Math.abs(y - H / 2)).toBeLessThan(1);
  }
});
