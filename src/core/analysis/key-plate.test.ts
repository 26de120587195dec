// What is read from plates that were made with known noise, light, spill and edges.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { diceOf, gauss } from '../testing/plates/dice';
import { testRig, type TestRig } from '../testing/rig';
import { Picture } from '../picture/picture';
import { toDisplay, toLinear } from '../picture/light';
import type { Colour } from '../params/define';
import { plateInWords, type Reading } from '../params/reading';
import { readPlate } from './key-plate';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [320, 200];
const SCREEN: Colour = [0.25, 0.68, 0.32];

interface Made {
  noise?: number;
  /** the screen's light goes up and down by this share from the middle to the sides */
  uneven?: number;
  /** of the screen's light on the subject */
  spill?: number;
  /** pixels over which the subject's edge goes over */
  soft?: number;
  /** coverage of a pane in the middle of the subject */
  pane?: number;
}
function read({ noise = 0, uneven = 0, spill = 0, soft = 2, pane = 1 }: Made): Reading {
  const dice = diceOf(5);
  const picture = Picture.make(rig.arena, { x: 0, y: 0, w: W, h: H });
  const floats = rig.arena.floats(picture.at, W * H * 4);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [(i % W) + 0.5, Math.floor(i / W) + 0.5];
    const far = Math.hypot(x - W / 2, y - H / 2);
    const alpha = Math.min(1, Math.max(0, (70 - far) / soft + 0.5)) * (far < 22 ? pane : 1);
    const shake = noise * (noise ? gauss(dice) : 0);
    for (let c = 0; c < 3; c++) {
      const screen = toLinear(SCREEN[c]!) * (1 + uneven * ((2 * x) / W - 1));
      const own = toLinear([0.62, 0.5, 0.42][c]!) + spill * screen;
      floats[i * 4 + c] = toDisplay(alpha * own + (1 - alpha) * screen) + shake;
    }
    floats[i * 4 + 3] = 1;
  }
  const found = rig.arena.lending((scratch) => readPlate(picture, [SCREEN], 0, { ...rig, scratch }))!;
  picture.release();
  expect(found.histogram.reduce((a, b) => a + b)).toBe(W * H);
  return found.reading;
}

describe('a plate that is read', () => {
  test('without noise, spill and unevenness has none, and its ends lie near the ends', () => {
    const reading = read({});
    expect(reading.noise).toBeLessThan(0.001);
    expect(reading.uneven).toBeLessThan(0.01);
    expect(reading.spill).toBeLessThan(0.01);
    expect(reading.clear).toBeLessThan(0.05);
    expect(reading.solid).toBeGreaterThan(0.95);
  });

  test.each([0.01, 0.03])('has the noise that was added: %d', (noise) => {
    const reading = read({ noise });
    expect(reading.noise).toBeGreaterThan(noise * 0.85);
    expect(reading.noise).toBeLessThan(noise * 1.15);
    // noise makes the screen stray
    expect(reading.clear).toBeGreaterThan(read({}).clear);
  });

  test.each([0.1, 0.3])('has the unevenness of its light: ±%d, though the key does not see it', (uneven) => {
    const reading = read({ uneven });
    // the outermost and the hidden parts do not count
    expect(reading.uneven).toBeGreaterThan(uneven * 0.7);
    expect(reading.uneven).toBeLessThan(uneven * 1.1);
    expect(reading.clear).toBeLessThan(0.06);
  });

  test('on which the screen shines is solid from where its inside is, not from where it should be', () => {
    const [none, some, much] = [0, 0.5, 0.6].map((spill) => read({ spill }));
    expect(some!.spill).toBeGreaterThan(none!.spill + 0.05);
    expect(much!.spill).toBeGreaterThan(some!.spill + 0.05);
    expect(much!.solid).toBeLessThan(some!.solid);
    expect(some!.solid).toBeLessThan(none!.solid);
  });

  test.each([6, 20])('has edges as wide as they were made: %d px', (soft) => {
    const { edge } = read({ soft });
    // from a tenth to nine tenths, of as much of it as is more like the screen than grey is
    expect(edge).toBeGreaterThan(soft * 0.8 * 0.55);
    expect(edge).toBeLessThan(soft * 0.8);
  });

  test('a pane of glass in the subject does not count as its inside', () => {
    expect(read({ pane: 0.75 }).solid).toBeGreaterThan(0.9);
  });

  test('is told in a sentence with its numbers', () => {
    expect(plateInWords({ clear: 0.1, solid: 0.9, noise: 0.031, uneven: 0.25, spill: 0.004, edge: 12.34 })).toBe(
      'This plate has strong noise (3.1 %), an uneven screen (±25 %), none of its light on the subject (0.4 %) and very soft edges (12.3 px).',
    );
    expect(plateInWords({ clear: 0.1, solid: 0.9, noise: 0.002, uneven: 0.02, spill: 0.2, edge: 1 })).toBe(
      'This plate has hardly any noise (0.2 %), an even screen (±2.0 %), much of its light on the subject (20 %) and sharp edges (1.0 px).',
    );
  });
});
