// Work on one 1080p float buffer, one thread, as ratios to copying that buffer; and against sharp on the same picture.
import sharp from 'sharp';
import { blendRows } from '../src/core/picture/rows';
import { BLEND_MODES } from '../src/core/picture/blend';
import { place } from '../src/core/picture/transform';
import { multiply, rotation, scaling, translation } from '../src/core/picture/matrix';
import { Picture } from '../src/core/picture/picture';
import type { Colour } from '../src/core/params/define';
import type { PlainValues } from '../src/core/params/registry';
import { runPass, testRig } from '../src/core/testing/rig';
import { onePick, truthFrames } from '../src/core/testing/key-truth';
import { random } from '../demo/art/raster';

const W = 1920;
const H = 1080;
export interface Row {
  what: string;
  goal: string;
  got: string;
  met: boolean;
}

/** Median milliseconds of some runs after two to warm up. */
export async function median(work: () => unknown, runs = 9): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < runs + 2; i++) {
    const start = performance.now();
    await work();
    if (i >= 2) times.push(performance.now() - start);
  }
  return middle(times);
}

/** How many times as long one work takes as another: they take turns, so that both see the same machine. Work that gives a number has measured itself. */
async function timesAsLong(work: () => unknown, other: () => unknown, runs = 9): Promise<number> {
  const [mine, others]: [number[], number[]] = [[], []];
  for (let i = 0; i < runs + 2; i++) {
    for (const [what, times] of [
      [work, mine],
      [other, others],
    ] as const) {
      const start = performance.now();
      const own = await what();
      if (i >= 2) times.push(typeof own === 'number' ? own : performance.now() - start);
    }
  }
  return middle(mine) / middle(others);
}
const middle = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;

export async function kernelRows(): Promise<Row[]> {
  sharp.concurrency(1);
  const bench = await testRig(1e9);
  const { arena, kernels } = bench;
  const rect = { x: 0, y: 0, w: W, h: H };
  const [picture, other] = [Picture.make(arena, rect), Picture.make(arena, rect)];
  const dice = random(3);
  const bytes = new Uint8ClampedArray(W * H * 4);
  for (let i = 0; i < bytes.length; i++)
    bytes[i] = i % 4 === 3 ? 255 : 60 + 90 * (0.5 + 0.5 * Math.sin(i / 4 / 97)) + 60 * dice();
  arena.scratch(bytes.length, (at) => {
    arena.bytes(at, bytes.length).set(bytes);
    kernels.widen(at, picture.at, W * H);
  });
  const pass = (type: string, values: PlainValues) => {
    return () => runPass(bench, type, values, picture.retain()).release();
  };
  const turned = multiply(
    translation(W / 2, H / 2),
    multiply(rotation(7), multiply(scaling(0.9, 0.9), translation(-W / 2, -H / 2))),
  );
  const copy = () => kernels.copy(picture.at, other.at, W * H);
  const ratio = async (what: string, most: number, work: () => unknown): Promise<Row> => {
    const times = await timesAsLong(work, copy);
    return { what, goal: `≤ ${most} × copying`, got: `${times.toFixed(1)} ×`, met: times <= most };
  };
  /** The key's own two sweeps, without the model of the screen and the work on the edge. */
  const keyRatio = async (): Promise<Row> => {
    const screen = [await plate(bench, picture)];
    let spent = 0;
    const timed =
      <A extends unknown[]>(sweep: (...given: A) => void) =>
      (...given: A) => {
        const start = performance.now();
        sweep(...given);
        spent += performance.now() - start;
      };
    const watched = {
      ...bench,
      kernels: { ...kernels, keyAlpha: timed(kernels.keyAlpha), keyUnmix: timed(kernels.keyUnmix) },
    };
    const sweeps = () => {
      spent = 0;
      runPass(watched, 'colour-key', { screen }, picture.retain()).release();
      return spent;
    };
    const times = await timesAsLong(sweeps, copy);
    return {
      what: 'colour key of a plate: matte and unmixing, without model and edge work',
      goal: '≤ 5 × copying',
      got: `${times.toFixed(1)} ×`,
      met: times <= 5,
    };
  };
  const rows = [
    await ratio(
      'adjust, all five dials',
      3,
      pass('adjust', { exposure: 0.5, contrast: 0.2, saturation: 1.3, temperature: 0.2, tint: -0.1 }),
    ),
    await ratio(
      'crop with corners and feather',
      3,
      pass('crop', { left: 40, top: 40, right: 40, bottom: 40, radius: 60, feather: 20 }),
    ),
    await ratio('over', 3, () => kernels.blendSpan(0, other.at, picture.at, W * H)),
    await ratio('multiply', 3, () => blendRows(bench, other, picture, rect, BLEND_MODES.indexOf('multiply'))),
    await keyRatio(),
    await ratio('blur, radius 4', 12, pass('blur', { radius: 4 })),
    await ratio('blur, radius 60', 12, pass('blur', { radius: 60 })),
    await ratio('affine placement', 7, () => place(bench, picture, turned, 1, rect)?.release()),
  ];
  rows.push(...(await againstSharp(bytes, pass, () => place(bench, picture, turned, 1, rect)?.release())));
  return rows;
}

/** Fills the picture with a decoded frame of the even plate. @returns a colour picked from its screen */
async function plate({ arena, kernels }: Awaited<ReturnType<typeof testRig>>, picture: Picture): Promise<Colour> {
  const [frame] = await truthFrames('even');
  const pixels = await sharp(frame!.frame, { raw: { width: frame!.width, height: frame!.height, channels: 4 } })
    .resize(W, H)
    .raw()
    .toBuffer();
  arena.scratch(pixels.length, (at) => {
    arena.bytes(at, pixels.length).set(pixels);
    kernels.widen(at, picture.at, W * H);
  });
  return onePick(frame!);
}

/** The same work by sharp (libvips) on one thread, from raw pixels to raw pixels, 8-bit. */
async function againstSharp(
  bytes: Uint8ClampedArray,
  pass: (type: string, values: PlainValues) => () => void,
  affine: () => void,
): Promise<Row[]> {
  const image = () => sharp(bytes, { raw: { width: W, height: H, channels: 4 } });
  const pairs: [string, () => void, () => Promise<unknown>][] = [
    [
      'blur, radius 8',
      pass('blur', { radius: 8 }),
      () => image().blur({ sigma: 8, precision: 'float' }).raw().toBuffer(),
    ],
    [
      'exposure and saturation',
      pass('adjust', { exposure: 0.3, saturation: 1.3 }),
      () => image().modulate({ brightness: 1.2, saturation: 1.3 }).raw().toBuffer(),
    ],
    [
      'sharpening, radius 2',
      pass('sharpen', { size: 2, strength: 1 }),
      () => image().sharpen({ sigma: 2 }).raw().toBuffer(),
    ],
    [
      'threshold of each channel',
      pass('posterise', { steps: 2, soft: 0 }),
      () => image().threshold(128, { greyscale: false }).raw().toBuffer(),
    ],
    [
      'channels mixed by a matrix',
      pass('colour', { redRed: 0.9, redGreen: 0.1, greenGreen: 0.8, greenBlue: 0.2, saturation: 1.1 }),
      () =>
        image()
          .recomb([
            [0.9, 0.1, 0],
            [0, 0.8, 0.2],
            [0, 0, 1],
          ])
          .raw()
          .toBuffer(),
    ],
    [
      'affine',
      affine,
      () =>
        image()
          .affine([0.893, -0.11, 0.11, 0.893], { interpolator: 'bilinear', background: { r: 0, g: 0, b: 0, alpha: 0 } })
          .raw()
          .toBuffer(),
    ],
  ];
  const rows: Row[] = [];
  for (const [what, ours, theirs] of pairs) {
    const factor = await timesAsLong(theirs, ours, 5);
    rows.push({
      what: `${what}, against sharp on one thread`,
      goal: '≥ 2 × faster',
      got: `${factor.toFixed(1)} × faster`,
      met: factor >= 2,
    });
  }
  return rows;
}
