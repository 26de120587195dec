// What cuts out without a screen's colour, on scenes from seeds: difference key, brightness key, smart selection. Scenes are not coded.
import { readAutomatic, rampFor } from '../src/core/analysis/automatic';
import { select, type SelectHint } from '../src/core/analysis/select';
import {
  passWithPlate,
  alphaOf,
  passAlone,
  score,
  type KeyScore,
  type TruthFrame,
} from '../src/core/testing/key-truth';
import type { PlainValues } from '../src/core/params/registry';
import { passOf } from '../src/core/passes/registry';
import { testRig } from '../src/core/testing/rig';
import { sceneOf, SIZE, type Scene, type Traits } from '../src/core/testing/plates/scene';

const COUNT = 24;
/** The dials that a new pass begins with where it is not neutral. */
const begun = (type: string): PlainValues =>
  Object.fromEntries(
    Object.entries(passOf(type)!.params).flatMap(([name, param]) => ('begins' in param ? [[name, param.begins]] : [])),
  );
const truthOf = ({ frames }: Scene): TruthFrame => ({
  width: SIZE.w,
  height: SIZE.h,
  frame: Buffer.from(frames[0]!.pixels),
  foreground: Buffer.from(frames[0]!.truth),
});
/** How far a pixel differs from the clean plate, as the matte: clear up to a tenth, solid from a fifth. */
const plainDifference = ({ frame }: TruthFrame, clean: Uint8ClampedArray): Float32Array =>
  Float32Array.from({ length: frame.length / 4 }, (_, i) => {
    const far = Math.hypot(...[0, 1, 2].map((c) => (frame[4 * i + c]! - clean[4 * i + c]!) / 255));
    return Math.min(1, Math.max(0, (far - 0.1) / 0.1));
  });

/** A way over a kind of pixels as a hand would draw it: through the middle of the widest stretch of every 24th row, and left out where it would cross others. */
function strokeOf({ foreground, width: w, height: h }: TruthFrame, keep: boolean): SelectHint | null {
  const is = (x: number, y: number) => {
    const alpha = foreground[(Math.round(y) * w + Math.round(x)) * 4 + 3]!;
    return keep ? alpha >= 250 : alpha <= 2;
  };
  const points: [number, number][] = [];
  for (let y = 20; y < h - 20; y += 24) {
    let [from, to, start] = [0, 0, 0];
    for (let x = 0; x <= w; x++)
      if (x === w || !is(x, y)) {
        if (x - start > to - from) [from, to] = [start, x];
        start = x + 1;
      }
    const next = [(from + to) / 2, y] as [number, number];
    const last = points.at(-1) ?? next;
    const crosses = Array.from({ length: 21 }, (_, k) => k / 20).some(
      (t) => !is(last[0] + (next[0] - last[0]) * t, last[1] + (next[1] - last[1]) * t),
    );
    if (to - from > 38 && !crosses) points.push(next);
  }
  return points.length > 1 ? { keep, radius: 6, points } : null;
}
/** Shares of what is surely solid or clear that a selection has on the wrong side, and its mean error. */
function selected(truth: TruthFrame): { wrong: number; mean: number } {
  const hints = [true, false].map((keep) => strokeOf(truth, keep)).filter((hint) => hint !== null);
  const { matte } = select({ w: truth.width, h: truth.height, data: truth.frame }, hints);
  let [wrong, sure, sum] = [0, 0, 0];
  matte.forEach((got, i) => {
    const want = truth.foreground[4 * i + 3]!;
    sum += Math.abs(got - want) / 255;
    if (want > 2 && want < 250) return;
    sure++;
    if (Math.abs(got - want) > 127) wrong++;
  });
  return { wrong: wrong / sure, mean: sum / matte.length };
}

const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;
const row = (what: string, scores: readonly KeyScore[]): string => {
  const edges = scores.map(({ edge }) => edge);
  const clean = scores.filter(({ solid, clear }) => solid >= 0.95 && clear <= 0.03).length;
  return `| ${what} | ${middle(edges).toFixed(3)} | ${Math.max(...edges).toFixed(3)} | ${clean} of ${scores.length} |`;
};

/** @param from the first seed */
export async function cutsTable(from: number): Promise<string> {
  const bench = await testRig(512e6);
  const seeds = Array.from({ length: COUNT }, (_, i) => from + i);
  const scenes = (fixed: (seed: number) => Partial<Traits>) =>
    seeds.map((seed) => sceneOf(seed, { count: 1, fixed: fixed(seed) }));
  const judge = (truth: TruthFrame, matte: Float32Array): KeyScore => score([truth], [matte]);

  const plain: KeyScore[] = [];
  const ours: KeyScore[] = [];
  const picked: { wrong: number; mean: number }[] = [];
  for (const scene of scenes(() => ({}))) {
    const [truth, clean] = [truthOf(scene), scene.clean()];
    plain.push(judge(truth, plainDifference(truth, clean)));
    ours.push(
      judge(
        truth,
        alphaOf(await passWithPlate(bench, truth, 'difference-key', begun('difference-key'), Uint8Array.from(clean))),
      ),
    );
    picked.push(selected(truth));
  }
  const lines = [
    row('difference key, with a clean plate', ours),
    row('the same plainly, by how far pixels differ', plain),
  ];
  for (const [keep, fixed] of [
    ['bright', (seed: number) => ({ screen: 'black' as const, subject: ['pale', 'skin', 'print'][seed % 3]! })],
    ['dark', (seed: number) => ({ screen: 'white' as const, subject: ['dark', 'cloth', 'wood'][seed % 3]! })],
  ] as const) {
    const [before, after]: KeyScore[][] = [[], []];
    for (const scene of scenes(fixed)) {
      const truth = truthOf(scene);
      before!.push(
        judge(truth, alphaOf(passAlone(bench, truth, 'brightness-key', { ...begun('brightness-key'), keep }))),
      );
      const dials = rampFor(readAutomatic(truth.frame, SIZE.w, SIZE.h)!, keep);
      after!.push(
        judge(
          truth,
          alphaOf(passAlone(bench, truth, 'brightness-key', { ...begun('brightness-key'), keep, ...dials })),
        ),
      );
    }
    const what = keep === 'bright' ? 'bright before black' : 'dark before white';
    lines.push(row(`brightness key, ${what}, *Automatic*`, after!), row('the same, as it begins', before!));
  }
  const wrongs = picked.map(({ wrong }) => wrong);
  return [
    '| what | edge, median | edge, worst | solid ≥ 0.95, clear ≤ 0.03 |',
    '|---|---|---|---|',
    ...lines,
    '',
    `Seeds ${from} to ${from + COUNT - 1}. Smart selection after a stroke over each side: ${(100 * middle(wrongs)).toFixed(2)} % of the sure pixels on the wrong side (worst ${(100 * Math.max(...wrongs)).toFixed(2)} %), mean error ${middle(picked.map(({ mean }) => mean)).toFixed(4)}.`,
  ].join('\n');
}
