// Edges from the colours on both sides, on scenes whose truth is known.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { testRig, type TestRig } from '../testing/rig';
import {
  alphaOf,
  keyCut,
  onePick,
  passAlone,
  pickedCuts,
  pickedKey,
  score,
  truthFrames,
  type TruthFrame,
} from '../testing/key-truth';
import { diceOf } from '../testing/plates/dice';
import type { Colour } from '../params/define';
import { toDisplay, toLinear } from '../picture/light';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [240, 160];
const SCREEN: Colour = [0.25, 0.68, 0.32];
const { abs, hypot, max, min, sin } = Math;

/** A card before a screen, mixed in linear light as a lens does. @param cover of each pixel @param thrown of the screen's light on the card */
function plate(cover: (x: number, y: number) => number, thrown: number): TruthFrame {
  const [frame, foreground] = [Buffer.alloc(W * H * 4), Buffer.alloc(W * H * 4)];
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [(i % W) + 0.5, Math.floor(i / W) + 0.5];
    const alpha = min(1, max(0, cover(x, y)));
    const own = [0.62, 0.45, 0.36].map((v) => v + 0.05 * sin(x / 3) * sin(y / 4));
    for (let c = 0; c < 3; c++) {
      const screen = toLinear(SCREEN[c]!) * (1 + 0.2 * (x / W - 0.5));
      const lit = toLinear(own[c]!) + thrown * screen;
      frame[i * 4 + c] = Math.round(255 * toDisplay(alpha * lit + (1 - alpha) * screen));
      foreground[i * 4 + c] = Math.round(255 * own[c]!);
    }
    frame[i * 4 + 3] = 255;
    foreground[i * 4 + 3] = Math.round(255 * alpha);
  }
  return { width: W, height: H, frame, foreground };
}
const disc = (soft: number) => (x: number, y: number) => (48 - hypot(x - W / 2, y - H / 2)) / soft + 0.5;
/** The disc with thin lines that leave it. */
const hairy = (x: number, y: number) => {
  const turn = Math.atan2(y - H / 2, x - W / 2);
  const far = hypot(x - W / 2, y - H / 2);
  const beside = abs(((turn * 20) / Math.PI) % 1) - 0.5;
  const line = far > 44 && far < 70 ? 0.75 * max(0, 1 - abs(beside) * 6) : 0;
  return max(disc(1.5)(x, y), line);
};
const judged = (truth: TruthFrame, fit: number) => score([truth], [alphaOf(keyCut(rig, truth, [SCREEN], { fit }))]);

describe('fitted edges', () => {
  test.each([
    ['a wide, soft edge', plate(disc(24), 0.1), 0.06],
    ['hair', plate(hairy, 0.05), 0.12],
  ] as const)('%s comes nearer to the truth than as it is cut', (_, truth, most) => {
    const [cut, fitted] = [judged(truth, 0), judged(truth, 6)];
    expect(fitted.edge).toBeLessThan(cut.edge * 0.6);
    expect(fitted.edge).toBeLessThan(most);
    expect(fitted.solid).toBeGreaterThan(0.97);
    expect(fitted.clear).toBeLessThan(0.03);
  });

  test('an inside that the screen shines on stays solid', () => {
    const lit = judged(plate(disc(3), 0.35), 6);
    expect(lit.solid).toBeGreaterThan(0.97);
  });

  test('a picture that is all screen, or all subject, has no two sides and stays as it is cut', () => {
    for (const cover of [() => 0, () => 1]) {
      const truth = plate(cover, 0);
      const [cut, fitted] = [0, 6].map((fit) => alphaOf(keyCut(rig, truth, [SCREEN], { fit })));
      expect(fitted).toEqual(cut);
    }
  });
});

describe('the colour of what is half covered', () => {
  const brown: Colour = [0.3, 0.2, 0.16];
  /** A soft disc of that colour with noise, cut out. @param thrown of the screen's light on it @returns straight display-encoded colours where it is between two coverages */
  function edge(
    soft: number,
    thrown: (x: number) => number,
    noise: number,
    [from, to]: readonly [number, number],
  ): number[][] {
    const truth = plate(disc(soft), 0);
    const dice = diceOf(7);
    for (let i = 0; i < W * H; i++) {
      const alpha = truth.foreground[i * 4 + 3]! / 255;
      for (let c = 0; c < 3; c++) {
        const screen = toLinear(SCREEN[c]!);
        const light = alpha * (toLinear(brown[c]!) + thrown(i % W) * screen) + (1 - alpha) * screen;
        truth.frame[i * 4 + c] = Math.round(255 * min(1, max(0, toDisplay(light) + noise * (2 * dice() - 1))));
      }
    }
    const out = passAlone(rig, truth, 'colour-key', { ...pickedKey(rig, truth, [SCREEN]), edgeColour: 0 });
    return Array.from({ length: W * H }, (_, i) => i)
      .filter(
        (i) =>
          truth.foreground[i * 4 + 3]! > 255 * from &&
          truth.foreground[i * 4 + 3]! < 255 * to &&
          out[i * 4 + 3]! > 0.02,
      )
      .map((i) => [0, 1, 2].map((c) => out[i * 4 + c]! / out[i * 4 + 3]!));
  }
  const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

  test("is nearer to the subject's than what noise leaves when the screen is taken out", () => {
    const colours = edge(20, () => 0, 0.06, [0.15, 0.5]);
    expect(colours.length).toBeGreaterThan(500);
    expect(mean(colours.map((rgb) => mean(rgb.map((v, c) => abs(v - brown[c]!)))))).toBeLessThan(0.04);
  });

  test("is not the opposite of the screen's where its light on the subject is taken for the screen", async () => {
    const [truth] = await truthFrames('noisy', 1);
    const [out] = pickedCuts(rig, [truth!], [onePick(truth!)]);
    const { foreground } = truth!;
    const opposite = Array.from({ length: out!.length / 4 }, (_, i) => i * 4).filter((i) => {
      const [r, g, b, a] = out!.subarray(i, i + 4) as unknown as [number, number, number, number];
      const purple = min(foreground[i]!, foreground[i + 2]!) > foreground[i + 1]!;
      return !purple && a > 0.1 && min(r, b) - g > 0.05 * a;
    });
    expect(opposite.length).toBeLessThan(150);
  });
});

describe("the screen's light on a rim", () => {
  /** A disc of a colour, on whose outer pixels the screen shines, cut out. @returns straight colours by pixel */
  function cut(own: (x: number, y: number) => Colour): (x: number, y: number) => number[] {
    const frame = Buffer.alloc(W * H * 4);
    for (let i = 0; i < W * H; i++) {
      const [x, y] = [(i % W) + 0.5, Math.floor(i / W) + 0.5];
      const depth = 60 - hypot(x - W / 2, y - H / 2);
      const alpha = min(1, max(0, depth / 2 + 0.5));
      for (let c = 0; c < 3; c++) {
        const screen = toLinear(SCREEN[c]!);
        const lit = toLinear(own(x, y)[c]!) + 0.2 * Math.exp(-max(0, depth) / 5) * screen;
        frame[i * 4 + c] = Math.round(255 * toDisplay(alpha * lit + (1 - alpha) * screen));
      }
      frame[i * 4 + 3] = 255;
    }
    const plate = { width: W, height: H, frame, foreground: frame };
    const [out] = pickedCuts(rig, [plate], [SCREEN]);
    return (x, y) => [...out!.subarray((y * W + x) * 4, (y * W + x) * 4 + 3)];
  }

  test('goes by what the subject is like further inside', () => {
    const cloth: Colour = [0.5, 0.22, 0.26];
    const at = cut(() => cloth);
    for (const depth of [2, 4, 8]) expect(abs(at(W / 2 - 60 + depth, H / 2)[1]! - cloth[1])).toBeLessThan(0.03);
  });

  test('takes nothing from a patch of another colour, nor where the inside has several', () => {
    const white: Colour = [0.9, 0.9, 0.88];
    const at = cut((x, y) =>
      abs(y - H / 2) < 5 && x < W / 2 - 40 ? white : y < H / 2 ? [0.85, 0.45, 0.2] : [0.2, 0.3, 0.55],
    );
    for (const x of [6, 10, 14]) {
      const [r, g, b] = at(W / 2 - 60 + x, H / 2);
      expect(g!).toBeGreaterThan((r! + b!) / 2 - 0.04);
    }
  });
});
