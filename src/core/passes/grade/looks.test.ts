import { beforeAll, describe, expect, test } from '@jest/globals';
import { valuesSchema } from '../../params/registry';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../../testing/rig';
import { paramsOf } from '../registry';
import { GRADE_LOOKS } from './looks';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(32e6);
});
const [W, H] = [40, 24];
const picture = () =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => [(i % W) / W, Math.floor(i / W) / H, ((i * 7) % 31) / 31, 1]).flat(),
  );

describe.each(GRADE_LOOKS.map((look) => [look.title, look] as const))('the look %s', (_, look) => {
  test('has values that its passes allow', () => {
    for (const [type, values] of look.passes) {
      const kept = Object.fromEntries(Object.entries(values).map(([name, value]) => [name, { still: value }]));
      expect(valuesSchema(paramsOf(type)).safeParse(kept).error).toBeUndefined();
    }
  });
  test('shows, and leaves most of the picture between black and white', () => {
    const before = floatsOf(rig, picture());
    let now = picture();
    for (const [type, values] of look.passes) {
      const centred = type === 'vignette' ? { middle: [W / 2, H / 2] } : {};
      now = runPass(rig, type, { ...centred, ...values }, now);
    }
    const after = floatsOf(rig, now);
    now.release();
    const changed = after.reduce((sum, v, i) => sum + Math.abs(v - before[i]!), 0) / after.length;
    expect(changed).toBeGreaterThan(0.02);
    const clipped = after.filter((v, i) => i % 4 < 3 && v >= 1).length / (W * H * 3);
    expect(clipped).toBeLessThan(0.25);
  });
});

test('no two looks have one name', () => {
  expect(new Set(GRADE_LOOKS.map(({ title }) => title)).size).toBe(GRADE_LOOKS.length);
});
