// The colour key on plates from seeds: a new one after one pick, beside two plain keys.
import { testRig, type TestRig } from '../src/core/testing/rig';
import {
  alphaOf,
  chromaDistanceMatte,
  compositeError,
  cutBy,
  onePick,
  pickedCuts,
  plainDifferenceMatte,
  score,
  type KeyScore,
  type TruthFrame,
} from '../src/core/testing/key-truth';
import type { Colour } from '../src/core/params/define';
import { codedPlates, type CodedPlate } from './coded-plates';

/** Plates in a run. */
const COUNT = 24;

interface Judged extends KeyScore {
  composite: number;
  /** how much greener, or bluer, than the truth the edge is over grey */
  cast: number;
}

/** A square of the first frame that holds nothing but screen, upper left first. */
export function pickOf({ frames }: CodedPlate): Colour {
  const { foreground, width, height } = frames[0]!;
  const size = 24;
  const clear = (x0: number, y0: number) => {
    for (let y = y0; y < y0 + size; y += 3)
      for (let x = x0; x < x0 + size; x += 3) if (foreground[(y * width + x) * 4 + 3]! > 1) return false;
    return true;
  };
  for (let y = Math.round(height * 0.3); y < height - size; y += size)
    for (let x = Math.round(width * 0.2); x < width - size; x += size)
      if (clear(x, y)) return onePick(frames[0]!, x, y, size);
  throw new Error('no screen is seen');
}

/** Mean of green less red and blue, or for a blue screen blue less red and green, that an edge has more than it should over middle grey. */
export function castOf(frames: readonly TruthFrame[], cuts: readonly Float32Array[], main: 1 | 2): number {
  let [sum, count] = [0, 0];
  const tone = (rgb: readonly number[]) => rgb[main]! - (rgb[0]! + rgb[3 - main]!) / 2;
  frames.forEach(({ foreground }, f) => {
    const cut = cuts[f]!;
    for (let i = 0; i < cut.length; i += 4) {
      const alpha = foreground[i + 3]! / 255;
      if (alpha <= 0.02 || alpha >= 0.98) continue;
      const over = [0, 1, 2].map((c) => cut[i + c]! + (1 - cut[i + 3]!) * 0.5);
      const want = [0, 1, 2].map((c) => (foreground[i + c]! / 255) * alpha + (1 - alpha) * 0.5);
      sum += tone(over) - tone(want);
      count++;
    }
  });
  return sum / count;
}

function judged({ frames, traits }: CodedPlate, cuts: readonly Float32Array[]): Judged {
  return {
    ...score(frames, cuts.map(alphaOf)),
    composite: compositeError(frames, cuts),
    cast: castOf(frames, cuts, traits.screen === 'green' ? 1 : 2),
  };
}
/** A plain key for a blue screen sees it as a green one. */
export const asGreen = (frame: TruthFrame, traits: CodedPlate['traits'], pick: Colour): [TruthFrame, Colour] => {
  if (traits.screen === 'green') return [frame, pick];
  const turned = Buffer.from(frame.frame);
  for (let i = 0; i < turned.length; i += 4) [turned[i + 1], turned[i + 2]] = [turned[i + 2]!, turned[i + 1]!];
  return [{ ...frame, frame: turned }, [pick[0], pick[2], pick[1]]];
};

function scores(bench: TestRig, plate: CodedPlate): { ours: Judged; plain: Judged[] } {
  const pick = pickOf(plate);
  const plain = [chromaDistanceMatte, plainDifferenceMatte].map((key) =>
    judged(
      plate,
      plate.frames.map((frame) => cutBy(frame, key(...asGreen(frame, plate.traits, pick)))),
    ),
  );
  const ours = judged(plate, pickedCuts(bench, plate.frames, [pick]));
  return { ours, plain };
}

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;

/** @param from the first seed */
export async function unseenTable(from: number): Promise<string> {
  const bench = await testRig(512e6);
  const seeds = Array.from({ length: COUNT }, (_, i) => from + i);
  const plates = await codedPlates(bench, seeds);
  return tableOf(plates.map((plate) => ({ ...plate, ...scores(bench, plate) })));
}

function tableOf(all: readonly (CodedPlate & ReturnType<typeof scores>)[]): string {
  const count = (holds: (item: (typeof all)[number]) => boolean) => all.filter(holds).length;
  const edges = all.map(({ ours }) => ours.edge);
  const rows: [string, string, string][] = [
    [
      'better than both plain keys, in the edge and over new backgrounds',
      '≥ 23 of 24',
      `${count(({ ours, plain }) => plain.every((key) => ours.edge < key.edge && ours.composite < key.composite))} of ${all.length}`,
    ],
    ['error in the edge band, median', '≤ 0.10', median(edges).toFixed(3)],
    ['the same, worst', '≤ 0.20', Math.max(...edges).toFixed(3)],
    ['error over new backgrounds, median', '≤ 0.045', median(all.map(({ ours }) => ours.composite)).toFixed(3)],
    [
      'solid 1st percentile ≥ 0.95, clear 99th ≤ 0.03',
      '≥ 22 of 24',
      `${count(({ ours }) => ours.solid >= 0.95 && ours.clear <= 0.03)} of ${all.length}`,
    ],
    [
      'cast of the edge over grey within ±0.02',
      '≥ 22 of 24',
      `${count(({ ours }) => Math.abs(ours.cast) <= 0.02)} of ${all.length}`,
    ],
  ];
  const traits = ({
    screen,
    subject,
    hair,
    motion,
    defocus,
    uneven,
    spill,
    noise,
    glass,
    codec,
  }: CodedPlate['traits']) =>
    [
      screen,
      subject,
      hair && `hair ${hair.toFixed(1)}`,
      motion && `motion ${motion.toFixed(0)}`,
      defocus && `defocus ${defocus.toFixed(1)}`,
      `uneven ${uneven.toFixed(2)}`,
      `spill ${spill.toFixed(2)}`,
      `noise ${noise.toFixed(3)}`,
      glass && 'glass',
      codec,
    ]
      .filter(Boolean)
      .join(', ');
  return [
    '| what | goal | measured |',
    '|---|---|---|',
    ...rows.map((row) => `| ${row.join(' | ')} |`),
    '',
    '| seed | plate | edge | chroma distance | colour difference | over new backgrounds | best plain | solid | clear | cast |',
    '|---|---|---|---|---|---|---|---|---|---|',
    ...all.map(
      ({ seed, traits: own, ours, plain }) =>
        `| ${seed} | ${traits(own)} | ${ours.edge.toFixed(3)} | ${plain.map((key) => key.edge.toFixed(3)).join(' | ')} | ${ours.composite.toFixed(3)} | ${Math.min(...plain.map((key) => key.composite)).toFixed(3)} | ${ours.solid.toFixed(3)} | ${ours.clear.toFixed(3)} | ${ours.cast.toFixed(3)} |`,
    ),
  ].join('\n');
}
