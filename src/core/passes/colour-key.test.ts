import { beforeAll, describe, expect, test } from '@jest/globals';
import { toDisplay, toLinear } from '../picture/light';
import { testRig, type TestRig } from '../testing/rig';
import {
  chromaDistanceMatte,
  compositeError,
  cutBy,
  keyCut,
  keyMatte,
  onePick,
  plainDifferenceMatte,
  score,
  truthFrames,
  type TruthFrame,
} from '../testing/key-truth';
import { screenOf } from '../analysis/screen-likeness';
import type { Colour } from '../params/define';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(512e6);
});

const flat = (colour: readonly number[], size = 48): TruthFrame => {
  const frame = Buffer.alloc(size * size * 4, Buffer.from([...colour.map((v) => Math.round(v * 255)), 255]));
  return { width: size, height: size, frame, foreground: frame };
};

/** A patch of one colour in the middle of a screen of another. */
const patch = (colour: readonly number[], screen: readonly number[], size = 160): TruthFrame => {
  const out = flat(screen, size);
  for (let y = 48; y < 112; y++)
    for (let x = 48; x < 112; x++) colour.forEach((v, c) => (out.frame[(y * size + x) * 4 + c] = Math.round(v * 255)));
  return out;
};
const MIDDLE = 80 * 160 + 80;

describe('against the truth of the demo plates: one pick, default dials', () => {
  // held close to what has been reached; the noisy plate's edge is wished to be 0.1
  test.each([
    ['even', { mean: 0.01, edge: 0.08, composite: 0.035 }],
    ['uneven', { mean: 0.01, edge: 0.09, composite: 0.04 }],
    ['noisy', { mean: 0.02, edge: 0.12, composite: 0.055 }],
  ] as const)('%s', async (plate, goal) => {
    const frames = await truthFrames(plate, 2);
    const pick = onePick(frames[0]!);
    const ours = score(
      frames,
      frames.map((frame) => keyMatte(rig, frame, [pick])),
    );
    expect(ours.mean).toBeLessThanOrEqual(goal.mean);
    expect(ours.edge).toBeLessThanOrEqual(goal.edge);
    expect(ours.solid).toBeGreaterThanOrEqual(0.97);
    expect(ours.clear).toBeLessThanOrEqual(0.03);
    const composite = compositeError(
      frames,
      frames.map((frame) => keyCut(rig, frame, [pick])),
    );
    expect(composite).toBeLessThanOrEqual(goal.composite);
    for (const plain of [chromaDistanceMatte, plainDifferenceMatte]) {
      const theirs = score(
        frames,
        frames.map((frame) => plain(frame, pick)),
      );
      expect(composite).toBeLessThan(
        compositeError(
          frames,
          frames.map((frame) => cutBy(frame, plain(frame, pick))),
        ),
      );
      expect(ours.mean).toBeLessThan(theirs.mean);
      expect(ours.edge).toBeLessThan(theirs.edge);
    }
  });
});

describe('what a key has to do', () => {
  const green: Colour = [0.3, 0.66, 0.35];
  const blue: Colour = [0.15, 0.25, 0.8];

  test.each([3, 12])(
    'solid pixels at the edge that coding has mixed with the screen take the colour from farther in, %d px',
    (edgeColour) => {
      const coat = [0.15, 0.25, 0.46];
      const scene = patch(coat, green);
      // the subject's outermost columns: as bright, its hue half way to the screen's; and a part of the inside of the same hue
      const teal = [0.1, 0.31, 0.35];
      const paint = (x0: number, x1: number) => {
        for (let y = 48; y < 112; y++)
          for (let x = x0; x < x1; x++)
            teal.forEach((v, c) => (scene.frame[(y * 160 + x) * 4 + c] = Math.round(v * 255)));
      };
      paint(48, 50);
      paint(76, 84);
      // without guidance by brightness, so that the outermost columns stay solid
      const cut = keyCut(rig, scene, [green], { edgeColour, guide: 0 });
      const colour = (x: number) => [0, 1, 2].map((c) => cut[(80 * 160 + x) * 4 + c]! / cut[(80 * 160 + x) * 4 + 3]!);
      expect(cut[(80 * 160 + 49) * 4 + 3]).toBeGreaterThan(0.97);
      for (const x of [48, 49]) colour(x).forEach((got, c) => expect(Math.abs(got - coat[c]!)).toBeLessThan(0.02));
      colour(80).forEach((got, c) => expect(Math.abs(got - teal[c]!)).toBeLessThan(0.01));
    },
  );

  test.each([
    ['green', green],
    ['blue', blue],
    ['red', [0.8, 0.2, 0.2] as Colour],
  ] as const)('a pure %s screen becomes clear, neutral colours stay solid', (_, screen) => {
    expect(Math.max(...keyMatte(rig, flat(screen), [screen]))).toBeLessThan(0.01);
    expect(Math.min(...keyMatte(rig, flat([0.7, 0.7, 0.7]), [screen]))).toBe(1);
  });

  test('a mixture in linear light gives back its share', () => {
    for (const share of [0.25, 0.5, 0.75]) {
      const mixed = green.map((v) => toDisplay((1 - share) * toLinear(v) + share * toLinear(0.5)));
      // default dials: clear up to 10 %, then a ramp of 80 %, of which the lowest fifth is clipped
      const want = Math.min(1, Math.max(0, ((share - 0.1) / 0.8 - 0.2) / 0.8));
      expect(Math.abs(keyMatte(rig, patch(mixed, green), [green])[MIDDLE]! - want)).toBeLessThan(0.02);
    }
  });

  test('a screen lit half as brightly is just as clear, without a second sample', () => {
    const dark = green.map((v) => toDisplay(toLinear(v) / 2)) as unknown as Colour;
    const matte = keyMatte(rig, patch(dark, green), [green]);
    expect(matte[MIDDLE]).toBeLessThan(0.01);
    // an even fall of light across the frame too
    const slope = flat(green, 160);
    for (let i = 0; i < 160 * 160; i++)
      green.forEach(
        (v, c) => (slope.frame[i * 4 + c] = Math.round(255 * toDisplay(toLinear(v) * (0.4 + 0.6 * ((i % 160) / 160))))),
      );
    expect(Math.max(...keyMatte(rig, slope, [green]))).toBeLessThan(0.02);
  });

  test('another hue of screen needs a second sample', () => {
    const olive: Colour = [0.42, 0.62, 0.2];
    expect(keyMatte(rig, patch(olive, green), [green])[MIDDLE]).toBeGreaterThan(0.1);
    expect(keyMatte(rig, patch(olive, green), [green, olive])[MIDDLE]).toBeLessThan(0.02);
  });

  test('a screen is told from grey by its colour difference', () => {
    expect(screenOf(green).difference).toBeGreaterThan(0.2);
    expect(screenOf([0.5, 0.5, 0.5]).difference).toBeCloseTo(0, 6);
    expect(screenOf(blue).channel).toBe(2);
  });
});
