// The colour key on the demo plates with truth: one pick, default dials, beside two plain keys.
import { testBench } from '../src/core/testing/bench';
import { chromaDistanceMatte, keyMatte, onePick, plainDifferenceMatte, PLATES, score, truthFrames, type KeyScore } from '../src/core/testing/key-truth';

const GOALS = { even: { mean: 0.01, edge: 0.12 }, uneven: { mean: 0.01, edge: 0.12 }, noisy: { mean: 0.02, edge: 0.1 } };
const line = (plate: string, key: string, { mean, edge, solid, clear }: KeyScore, met: string) => `| ${plate} | ${key} | ${mean.toFixed(4)} | ${edge.toFixed(3)} | ${solid.toFixed(3)} | ${clear.toFixed(3)} | ${met} |`;

export async function keyTable(): Promise<string> {
  const bench = await testBench(512e6);
  const lines = ['| plate | key | mean error | in the edge band | solid, 1st percentile | clear, 99th percentile | goals |', '|---|---|---|---|---|---|---|'];
  for (const plate of PLATES) {
    const frames = await truthFrames(plate, 6);
    const pick = onePick(frames[0]!);
    const ours = score(frames, frames.map((frame) => keyMatte(bench, frame, [pick])));
    const goal = GOALS[plate];
    const misses = [ours.mean > goal.mean && `mean ≤ ${goal.mean}`, ours.edge > goal.edge && `edge ≤ ${goal.edge}`, ours.solid < 0.97 && 'solid ≥ 0.97', ours.clear > 0.03 && 'clear ≤ 0.03'].filter(Boolean);
    lines.push(line(plate, 'Colour key', ours, misses.length ? `misses ${misses.join(', ')}` : 'met'));
    lines.push(line(plate, 'chroma distance', score(frames, frames.map((frame) => chromaDistanceMatte(frame, pick))), ''));
    lines.push(line(plate, 'global colour difference', score(frames, frames.map((frame) => plainDifferenceMatte(frame, pick))), ''));
  }
  return lines.join('\n');
}
