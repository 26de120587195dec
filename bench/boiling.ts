// How edges boil on noisy footage: a new key after one pick, each frame by itself and with others taken together.
import { boiling } from '../src/core/testing/boiling';
import { testRig } from '../src/core/testing/rig';

const SIZE = { w: 480, h: 270 };
const COUNT = 6;
/** Frames to each side: none, as many as a reading sets at most, as many as can be. */
const CALM = [0, 3, 8] as const;

/** @param from the first seed @returns a table in Markdown */
export async function boilingTable(from: number): Promise<string> {
  const rig = await testRig(768e6);
  const rows = Array.from({ length: COUNT }, (_, i) => {
    const cells = CALM.map((calm) => boiling(rig, from + i, SIZE, { still: true, calm }));
    return `| ${from + i} | ${cells.map(({ change, error }) => `${change.toFixed(3)}, ${error.toFixed(3)}`).join(' | ')} |`;
  });
  return [
    'Mean change of the matte from one frame to the next (goal ≤ 0.010), and its error, in the edge band of a subject that stands still before noise of 0.03.',
    '',
    `| seed | ${CALM.map((calm) => (calm ? `calm over ${calm} frames` : 'each frame by itself')).join(' | ')} |`,
    `|---|${CALM.map(() => '---|').join('')}`,
    ...rows,
  ].join('\n');
}
