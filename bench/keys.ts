// The colour key on the demo plates with truth: a new one after one pick, beside two plain keys.
import { testRig } from '../src/core/testing/rig';
import {
  alphaOf,
  chromaDistanceMatte,
  compositeError,
  cutBy,
  pickedCuts,
  onePick,
  plainDifferenceMatte,
  PLATES,
  score,
  truthFrames,
  type KeyScore,
  type TruthFrame,
} from '../src/core/testing/key-truth';

const GOALS = {
  even: { mean: 0.01, edge: 0.12 },
  uneven: { mean: 0.01, edge: 0.12 },
  noisy: { mean: 0.02, edge: 0.1 },
};
const COMPOSITE = 0.05;
const line = (plate: string, key: string, { mean, edge, solid, clear }: KeyScore, composite: number, met: string) =>
  `| ${plate} | ${key} | ${mean.toFixed(4)} | ${edge.toFixed(3)} | ${solid.toFixed(3)} | ${clear.toFixed(3)} | ${composite.toFixed(4)} | ${met} |`;

export async function keyTable(): Promise<string> {
  const bench = await testRig(512e6);
  const lines = [
    '| plate | key | mean error | in the edge band | solid, 1st percentile | clear, 99th percentile | over new backgrounds | goals |',
    '|---|---|---|---|---|---|---|---|',
  ];
  for (const plate of PLATES) {
    const frames = await truthFrames(plate, 6);
    const pick = onePick(frames[0]!);
    const cuts = pickedCuts(bench, frames, [pick]);
    const ours = score(frames, cuts.map(alphaOf));
    const composite = compositeError(frames, cuts);
    const goal = GOALS[plate];
    const misses = [
      ours.mean > goal.mean && `mean ≤ ${goal.mean}`,
      ours.edge > goal.edge && `edge ≤ ${goal.edge}`,
      ours.solid < 0.97 && 'solid ≥ 0.97',
      ours.clear > 0.03 && 'clear ≤ 0.03',
      composite > COMPOSITE && `new backgrounds ≤ ${COMPOSITE}`,
    ].filter(Boolean);
    lines.push(line(plate, 'Colour key', ours, composite, misses.length ? `misses ${misses.join(', ')}` : 'met'));
    const plain = (name: string, key: (frame: TruthFrame, screen: typeof pick) => Float32Array) => {
      const mattes = frames.map((frame) => key(frame, pick));
      lines.push(
        line(
          plate,
          name,
          score(frames, mattes),
          compositeError(
            frames,
            frames.map((frame, i) => cutBy(frame, mattes[i]!)),
          ),
          '',
        ),
      );
    };
    plain('chroma distance', chromaDistanceMatte);
    plain('global colour difference', plainDifferenceMatte);
  }
  return lines.join('\n');
}
