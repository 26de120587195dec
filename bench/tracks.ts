// Point tracks on coded clips whose motion is known, beside a general vision library's pyramidal Lucas–Kanade on the same frames.
import cvModule from '@techstark/opencv-js';
import { encode } from '../demo/encode';
import { rgbaOf, type FetchedPicture } from '../src/core/picture/fetched';
import { project } from '../src/core/picture/matrix';
import { testRig, type TestRig } from '../src/core/testing/rig';
import { moving, movingFrames, type MovingFrame } from '../src/core/testing/moving';
import { runTrack, type Measured } from '../src/core/track/run';

const W = 400;
const H = 240;
const FRAMES = 40;
/** Half the side of the pattern and of the library's window. */
const HALF = 20;
/** Pixels from the truth beyond which a point that is said to be found is wrong. */
const WRONG = 2;

const way = (f: number): [number, number] => [-110 + 3.4 * f, 40 * Math.sin(f / 9)];
interface Plate {
  name: string;
  noise: number;
  goal: number;
  at(frame: number): MovingFrame;
}
const PLATES: Plate[] = [
  { name: 'moves', noise: 0.005, goal: 0.15, at: (f) => ({ map: moving(...way(f)) }) },
  { name: 'noise 0.03', noise: 0.03, goal: 0.35, at: (f) => ({ map: moving(...way(f)) }) },
  { name: 'turns ±20°', noise: 0.01, goal: 0.35, at: (f) => ({ map: moving(...way(f), 20 * Math.sin(f / 8)) }) },
  {
    name: 'size 0.7–1.4',
    noise: 0.01,
    goal: 0.35,
    at: (f) => ({ map: moving(...way(f), 0, 1.05 + 0.35 * Math.sin(f / 9)) }),
  },
  {
    name: 'turns 90° and doubles',
    noise: 0.01,
    goal: 0.35,
    at: (f) => ({ map: moving(...way(f), (90 * f) / 39, 1 + f / 39) }),
  },
  {
    name: 'light ±30 %',
    noise: 0.01,
    goal: 0.35,
    at: (f) => ({ map: moving(...way(f)), gain: 1 + 0.3 * Math.sin(f / 9), lift: 0.04 * Math.sin(f / 6) }),
  },
  {
    name: 'jumps about',
    noise: 0.01,
    goal: 0.35,
    at: (f) => ({ map: moving(50 * Math.sin(f / 2), 30 * Math.cos(0.9 * f)) }),
  },
  {
    name: 'passed by a bar',
    noise: 0.01,
    goal: 0.35,
    at: (f) => ({ map: moving(-40 + 1.5 * f, 4), bar: { x: -190 + 8 * f, wide: 70 } }),
  },
];

const truthAt = ({ at }: Plate, frame: number): [number, number] => {
  const [x, y] = project(at(frame).map, 0, 0);
  return [x, y];
};
/** Share of the pattern that the bar hides. */
function covered(plate: Plate, frame: number): number {
  const { bar } = plate.at(frame);
  const [x] = truthAt(plate, frame);
  return bar ? Math.max(0, Math.min(x + HALF, bar.x + bar.wide) - Math.max(x - HALF, bar.x)) / (2 * HALF) : 0;
}

interface Score {
  rms: number;
  /** of the frames on which more than half is covered, how many are said to be lost */
  said: number;
  wrong: number;
  perSecond: number;
}
function scored(plate: Plate, found: (frame: number) => readonly [number, number] | null, ms: number): Score {
  let [sum, n, said, hidden, wrong] = [0, 0, 0, 0, 0];
  for (let frame = 0; frame < FRAMES; frame++) {
    const point = found(frame);
    const isHidden = covered(plate, frame) > 0.5;
    if (isHidden) {
      hidden++;
      if (!point) said++;
    }
    if (!point) continue;
    const [x, y] = truthAt(plate, frame);
    const off = Math.hypot(point[0] - x, point[1] - y);
    if (off > WRONG || isHidden) wrong++;
    else {
      sum += off * off;
      n++;
    }
  }
  return {
    rms: Math.sqrt(sum / Math.max(1, n)),
    said: hidden ? said / hidden : 1,
    wrong,
    perSecond: (1000 * FRAMES) / ms,
  };
}

async function ours(bench: TestRig, plate: Plate, frames: readonly FetchedPicture[]): Promise<Score> {
  const [x, y] = truthAt(plate, 0);
  const found = new Map<number, Measured['sample']>();
  const start = performance.now();
  await runTrack(
    bench,
    {
      kind: 'point',
      size: { w: W, h: H },
      patterns: [
        [
          [x - HALF, y - HALF],
          [x + HALF, y - HALF],
          [x + HALF, y + HALF],
          [x - HALF, y + HALF],
        ],
      ],
      reach: 40,
      from: 0,
      to: FRAMES - 1,
      fixed: new Map(),
      patience: FRAMES,
    },
    (frame) => Promise.resolve(frames[frame] ?? null),
    ({ frame, sample }) => {
      found.set(frame, sample);
      return true;
    },
  );
  const ms = performance.now() - start;
  return scored(plate, (frame) => found.get(frame)?.points[0] ?? null, ms);
}

type Cv = typeof cvModule;
/** The library says by itself when it has started; waiting for the module as for a promise never ends. */
async function started(): Promise<void> {
  if (!cvModule.Mat) await new Promise<void>((resolve) => (cvModule.onRuntimeInitialized = resolve));
}
/** Frame to frame, as the library's own examples do it: a point whose status is 0 is lost for good. */
function theirs(cv: Cv, plate: Plate, frames: readonly FetchedPicture[]): Score {
  const grey = (frame: FetchedPicture) => {
    const rgba = new cv.Mat(H, W, cv.CV_8UC4);
    rgba.data.set(frame.data);
    const out = new cv.Mat();
    cv.cvtColor(rgba, out, cv.COLOR_RGBA2GRAY);
    rgba.delete();
    return out;
  };
  const found: ([number, number] | null)[] = [];
  let [x, y] = truthAt(plate, 0).map((v, i) => v + (i ? H : W) / 2 - 0.5) as [number, number];
  let lost = false;
  const start = performance.now();
  let before = grey(frames[0]!);
  found.push(truthAt(plate, 0));
  for (let frame = 1; frame < FRAMES; frame++) {
    const now = grey(frames[frame]!);
    if (!lost) {
      const from = cv.matFromArray(1, 1, cv.CV_32FC2, [x, y]);
      const [to, status, error] = [new cv.Mat(), new cv.Mat(), new cv.Mat()];
      cv.calcOpticalFlowPyrLK(before, now, from, to, status, error, new cv.Size(2 * HALF + 1, 2 * HALF + 1), 3);
      lost = status.data[0] === 0;
      [x, y] = [to.data32F[0]!, to.data32F[1]!];
      [from, to, status, error].forEach((mat) => mat.delete());
    }
    found.push(lost ? null : [x + 0.5 - W / 2, y + 0.5 - H / 2]);
    before.delete();
    before = now;
  }
  before.delete();
  const ms = performance.now() - start;
  return scored(plate, (frame) => found[frame]!, ms);
}

export async function trackTable(seed = 11): Promise<string> {
  const bench = await testRig(512e6);
  await started();
  const cv = cvModule;
  const lines = [
    '| what it does | error, RMS px | goal | library | wrong frames | library | lost said while hidden | library | frames a second | |',
    '|---|---|---|---|---|---|---|---|---|---|',
  ];
  for (const [i, plate] of PLATES.entries()) {
    const light = movingFrames({
      seed: seed + i,
      w: W,
      h: H,
      noise: plate.noise,
      half: { w: 32, h: 28 },
      at: plate.at,
    });
    const job = {
      container: 'mp4',
      codec: 'avc',
      width: W,
      height: H,
      rate: 24,
      frames: FRAMES,
      bitrate: 1_000_000,
    } as const;
    const all = Array.from({ length: FRAMES }, (_, frame) => frame);
    const { decoded } = await encode(
      job,
      (frame) => {
        const { data } = light(frame);
        const grey = (v: number) => ((v - 16) * 255) / 219;
        return Uint8ClampedArray.from({ length: W * H * 4 }, (_, k) => (k % 4 === 3 ? 255 : grey(data[k >> 2]!)));
      },
      all,
    );
    const frames = all.map((frame): FetchedPicture => ({
      data: rgbaOf(bench, { data: decoded.get(frame)!, width: W, height: H }),
      width: W,
      height: H,
    }));
    const [own, other] = [await ours(bench, plate, frames), theirs(cv, plate, frames)];
    const met =
      own.rms <= plate.goal && own.wrong === 0 && own.said >= 0.95 && (own.rms <= other.rms + 0.02 || other.wrong > 0);
    const hidden = (score: Score) => (plate.name.includes('bar') ? `${Math.round(score.said * 100)} %` : '');
    lines.push(
      `| ${plate.name} | ${own.rms.toFixed(3)} | ≤ ${plate.goal} | ${other.rms.toFixed(3)} | ${own.wrong} | ${other.wrong} | ${hidden(own)} | ${hidden(other)} | ${own.perSecond.toFixed(0)} | ${met ? 'met' : 'missed'} |`,
    );
  }
  return lines.join('\n');
}
