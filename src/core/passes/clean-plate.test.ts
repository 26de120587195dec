import { beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { testRig, type TestRig } from '../testing/rig';
import {
  alphaOf,
  compositeError,
  keyMatte,
  onePick,
  passWithPlate,
  score,
  truthFrames,
  type TruthFrame,
} from '../testing/key-truth';
import { sceneOf } from '../testing/plates/scene';

let rig: TestRig;
let clean: Uint8Array;
let frames: TruthFrame[];
beforeAll(async () => {
  rig = await testRig(512e6);
  clean = await sharp(readFileSync(join(import.meta.dirname, '../../../demo/media/captain-uneven-clean.webp')))
    .ensureAlpha()
    .raw()
    .toBuffer();
  frames = await truthFrames('uneven', 2);
});

describe('with a clean plate of the uneven sheet', () => {
  test('the colour key meets the goals, and is no worse than with its own model', async () => {
    const pick = onePick(frames[0]!);
    const mattes = await Promise.all(
      frames.map((frame) => passWithPlate(rig, frame, 'colour-key', { screen: [pick] }, clean).then(alphaOf)),
    );
    const ours = score(frames, mattes);
    const modelled = score(
      frames,
      frames.map((frame) => keyMatte(rig, frame, [pick])),
    );
    expect(ours.mean).toBeLessThanOrEqual(Math.min(0.01, modelled.mean + 0.0005));
    expect(ours.edge).toBeLessThanOrEqual(0.12);
    expect([ours.solid >= 0.97, ours.clear <= 0.03]).toEqual([true, true]);
  });

  test('the difference key finds the captain without knowing any colour', async () => {
    const cuts = await Promise.all(frames.map((frame) => passWithPlate(rig, frame, 'difference-key', {}, clean)));
    const ours = score(frames, cuts.map(alphaOf));
    expect(ours.mean).toBeLessThanOrEqual(0.01);
    expect(ours.clear).toBeLessThanOrEqual(0.03);
    expect(ours.solid).toBeGreaterThanOrEqual(0.97);
    // and leaves no fringe of the screen
    expect(ours.edge).toBeLessThanOrEqual(0.17);
    expect(compositeError(frames, cuts)).toBeLessThanOrEqual(0.065);
  });

  test('what is the same as the plate is clear, whatever it looks like', async () => {
    const same: TruthFrame = { ...frames[0]!, frame: Buffer.from(clean) };
    const alpha = alphaOf(await passWithPlate(rig, same, 'difference-key', {}, clean));
    expect(alpha.reduce((most, v) => Math.max(most, v), 0)).toBe(0);
  });
});

test('a difference key finds edges that are soft, or hair, from the plate and the colours inside', async () => {
  const size = { w: 480, h: 270 };
  for (const [seed, most] of [
    [5, 0.1],
    [9, 0.12],
  ] as const) {
    const scene = sceneOf(seed, { count: 1, size });
    const [frame] = scene.frames.map(({ pixels, truth }) => ({
      width: size.w,
      height: size.h,
      frame: Buffer.from(pixels),
      foreground: Buffer.from(truth),
    }));
    const clean = new Uint8Array(scene.clean());
    const [cut, fitted] = [0, 6].map(async (fit) =>
      score([frame!], [alphaOf(await passWithPlate(rig, frame!, 'difference-key', { fit }, clean))]),
    );
    expect((await fitted!).edge).toBeLessThan((await cut!).edge * 0.5);
    expect((await fitted!).edge).toBeLessThan(most);
    expect((await fitted!).solid).toBeGreaterThan(0.97);
  }
});
