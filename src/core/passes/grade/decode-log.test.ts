import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { encodingOf, setEncoding } from '../../document/edits/clip-line';
import { perform } from '../../document/edit';
import type { PassId } from '../../document/schema';
import { readFlatness } from '../../measures/flatness';
import { fromLimited, LOG_CURVES, toBt709, type LogCurveName } from '../../picture/encodings';
import { toDisplay } from '../../picture/light';
import { times } from '../../picture/white';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../../testing/rig';
import { projectOf } from '../../testing/documents';
import { rolledOff } from './decode-log';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
type RGB = [number, number, number];
const curves = Object.keys(LOG_CURVES) as LogCurveName[];

/** The recorded value of some light, by halving. */
function recorded(curve: LogCurveName, light: number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 40; i++) {
    const v = (low + high) / 2;
    if (LOG_CURVES[curve].light(LOG_CURVES[curve].fullRange ? fromLimited(v) : v) < light) low = v;
    else high = v;
  }
  return low;
}

describe('footage recorded with a log curve', () => {
  test.each(curves)('of %s becomes what its formula says', (curve) => {
    const light = fc.double({ min: 0.002, max: 0.7, noNaN: true });
    const { primaries } = LOG_CURVES[curve];
    fc.assert(
      fc.property(fc.array(fc.tuple(light, light, light), { minLength: 5, maxLength: 5 }), (colours) => {
        const flat = colours.flatMap((c) => [...c.map((v) => recorded(curve, v)), 1]);
        const values = { curve, primaries, limited: true, exposure: 0, rollOff: 0 };
        const out = runPass(rig, 'decode-log', values, pictureOf(rig, { x: 0, y: 0, w: 5, h: 1 }, flat));
        const got = floatsOf(rig, out);
        out.release();
        colours.forEach((c, i) => {
          const want = times(toBt709(primaries), c as RGB).map((v) => toDisplay(Math.max(0, v)));
          want.forEach((v, k) => expect(Math.abs(Math.min(1, got[i * 4 + k]!) - Math.min(1, v))).toBeLessThan(1 / 255));
        });
      }),
      { numRuns: 30 },
    );
  });

  test('rolls highlights off without a kink, never over white, and leaves what is darker alone', () => {
    expect(rolledOff(1.7, 0)).toBe(1.7);
    for (const amount of [0.2, 0.5, 1]) {
      let [before, slope] = [0, 1];
      for (let v = 0.01; v < 2; v += 0.01) {
        const now = rolledOff(v, amount);
        expect(now).toBeGreaterThanOrEqual(before);
        expect(now).toBeLessThanOrEqual(1);
        expect(Math.abs((now - before) / 0.01 - slope)).toBeLessThan(0.11);
        if (v < 1 - amount / 2) expect(now).toBe(v);
        slope = (now - before) / 0.01;
        before = now;
      }
    }
  });

  test('is said of the clip once, with the primaries that go with the curve, and taken back', () => {
    const said = (curve: LogCurveName | null, project = projectOf()) =>
      perform(project, setEncoding('plate' as never, curve, 'fresh' as PassId))!.project;
    const first = said('slog3');
    expect(encodingOf(first.stock[0]!)).toBe('slog3');
    const again = said('hlg', first);
    expect(again.stock[0]!.line.map(({ type, values }) => [type, values['curve'], values['primaries']])).toEqual([
      ['decode-log', { still: 'hlg' }, { still: 'bt2020' }],
    ]);
    expect(said(null, again).stock[0]!.line).toEqual([]);
  });
});

describe('flatness', () => {
  /** A scene of patches lit from a hundredth to nine tenths of white. */
  const scene = (seed: number): RGB[] => {
    let state = seed;
    const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
    return Array.from({ length: 400 }, () => {
      const bright = 0.01 * 90 ** next();
      return [0, 1, 2].map(() => Math.min(0.9, bright * (0.6 + 0.8 * next()))) as RGB;
    });
  };
  const bytes = (colours: readonly RGB[], encode: (v: number) => number) =>
    Uint8ClampedArray.from(colours.flatMap((c) => [...c.map((v) => Math.round(255 * encode(v))), 255]));

  test('is seen on footage recorded with a log curve and not on ordinary pictures', () => {
    for (let seed = 7100; seed < 7124; seed++) {
      const colours = scene(seed);
      expect(readFlatness(bytes(colours, toDisplay)).flat).toBe(false);
      for (const curve of ['acescct', 'slog3', 'vlog'] as const)
        expect(readFlatness(bytes(colours, (v) => recorded(curve, v))).flat).toBe(true);
    }
  });

  test('needs something to look at', () => {
    expect(readFlatness(new Uint8ClampedArray(16)).flat).toBe(false);
  });
});
