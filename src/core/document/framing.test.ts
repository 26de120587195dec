import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { layerOf, colourSource, shotOf } from '../testing/documents';
import { valueAt } from '../time/values';
import { FRAMING_MOVES, framingBetween, framingKeys, framingOfPlace, framingsOf, inside, placeOfFraming, spanOf, widest, type Framing } from './framing';

const shot = { w: 1280, h: 720 };
const side = fc.integer({ min: 200, max: 4000 });
const sources = fc.record({ w: side, h: side });
const framings = fc.record({ x: fc.double({ min: -900, max: 900, noNaN: true }), y: fc.double({ min: -900, max: 900, noNaN: true }), width: fc.double({ min: 40, max: 5000, noNaN: true }) });
/** Whether a framing shows nothing beyond its source. */
const covered = ({ x, y, width }: Framing, { w, h }: { w: number; h: number }) => {
  const high = (width * shot.h) / shot.w;
  const slack = 1e-6 * Math.max(w, h);
  return Math.abs(x) + width / 2 <= w / 2 + slack && Math.abs(y) + high / 2 <= h / 2 + slack;
};

describe('framing', () => {
  test('a place and its framing are the same said in two ways', () => {
    fc.assert(
      fc.property(framings, (framing) => {
        const { position, scale } = placeOfFraming(framing, shot);
        const back = framingOfPlace(position, scale, shot);
        for (const part of ['x', 'y', 'width'] as const) expect(back[part]).toBeCloseTo(framing[part], 6);
      }),
    );
  });

  test('kept inside, a framing shows nothing beyond its source, and one that did not is left as it is', () => {
    fc.assert(
      fc.property(framings, sources, (framing, source) => {
        const kept = inside(framing, source, shot);
        expect(covered(kept, source)).toBe(true);
        if (covered(framing, source)) for (const part of ['x', 'y', 'width'] as const) expect(kept[part]).toBeCloseTo(framing[part], 6);
        expect(kept.width).toBeLessThanOrEqual(widest(source, shot) + 1e-9);
      }),
    );
  });

  test('every preset move begins and ends inside its source, and moves', () => {
    fc.assert(
      fc.property(sources, (source) => {
        for (const { name } of FRAMING_MOVES) {
          const [from, to] = framingsOf(name, source, shot);
          expect(covered(from, source) && covered(to, source)).toBe(true);
          expect(from).not.toEqual(to);
        }
      }),
    );
  });

  test('on the way the width goes by equal factors, and the point that stands still on screen stands still', () => {
    fc.assert(
      fc.property(framings, framings, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (a, b, t) => {
        const now = framingBetween(a, b, t);
        expect(Math.log(now.width / a.width)).toBeCloseTo(t * Math.log(b.width / a.width), 6);
        if (Math.abs(b.width / a.width - 1) < 0.05) return;
        // the fixed point of the zoom: at the same share of the screen in the first, the last and every framing between
        const fixed = (a.x * b.width - b.x * a.width) / (b.width - a.width);
        expect((fixed - now.x) / now.width).toBeCloseTo((fixed - a.x) / a.width, 4);
      }),
    );
  });

  test('keyframes meet every stop, and between them stray from the even way by less than a hundredth', () => {
    const stops = [{ at: 0, framing: { x: 0, y: 0, width: 1280 } }, { at: 50, framing: { x: 100, y: 40, width: 640 } }, { at: 90, framing: { x: -80, y: 0, width: 900 } }];
    const keys = framingKeys(stops, shot);
    for (const { at, framing } of stops) {
      const got = framingOfPlace(valueAt({ keys: keys.position }, at), valueAt({ keys: keys.scale }, at), shot);
      expect(got.width).toBeCloseTo(framing.width, 6);
      expect(got.x).toBeCloseTo(framing.x, 6);
    }
    for (let f = 0; f <= 50; f++) {
      const width = 1280 / valueAt({ keys: keys.scale }, f)[0];
      expect(Math.abs(width / framingBetween(stops[0]!.framing, stops[1]!.framing, f / 50).width - 1)).toBeLessThan(0.01);
    }
    expect(keys.position.every((key, i, all) => i === 0 || key.at > all[i - 1]!.at)).toBe(true);
  });

  test('the span that is framed is what of the layer lies in the shot', () => {
    const span = (start: number, length: number) => spanOf(layerOf('a', colourSource([0, 0, 0]), { span: { start, length } }), shotOf({ length: 48 }));
    expect(span(0, 48)).toEqual([0, 47]);
    expect(span(-10, 100)).toEqual([10, 57]);
    expect(span(40, 100)).toEqual([0, 7]);
    expect(span(47, 1)).toEqual([0, 1]);
  });
});
