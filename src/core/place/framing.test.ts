import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { layerOf, colourSource, shotOf } from '../testing/documents';
import {
  FRAMING_MOVES,
  framingAt,
  framingBetween,
  framingOfPlace,
  framingsOf,
  inside,
  placeOfFraming,
  spanOf,
  widest,
  type Framing,
  type FramingStop,
} from './framing';

const shot = { w: 1280, h: 720 };
const side = fc.integer({ min: 200, max: 4000 });
const sources = fc.record({ w: side, h: side });
const framings = fc.record({
  x: fc.double({ min: -900, max: 900, noNaN: true }),
  y: fc.double({ min: -900, max: 900, noNaN: true }),
  width: fc.double({ min: 40, max: 5000, noNaN: true }),
});
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
        if (covered(framing, source))
          for (const part of ['x', 'y', 'width'] as const) expect(kept[part]).toBeCloseTo(framing[part], 6);
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

  test('stops are met at their frames and held outside of them; a hold stays, an easing arrives all the same', () => {
    const stops: FramingStop[] = [
      { at: 0, x: 0, y: 0, width: 1280, ease: 'hold' },
      { at: 50, x: 100, y: 40, width: 640, ease: { cubic: [0.4, 0, 0.2, 1] } },
      { at: 90, x: -80, y: 0, width: 900, ease: 'linear' },
    ];
    for (const stop of stops) expect(framingAt(stops, stop.at)).toMatchObject({ x: stop.x, width: stop.width });
    expect(framingAt(stops, -9).width).toBe(1280);
    expect(framingAt(stops, 200).width).toBe(900);
    expect(framingAt(stops, 49).width).toBe(1280);
    expect(framingAt(stops, 60).width).toBeLessThan(framingBetween(stops[1]!, stops[2]!, 10 / 40).width);
  });

  test('the span that is framed is what of the layer lies in the shot', () => {
    const span = (start: number, length: number) =>
      spanOf(layerOf('a', colourSource([0, 0, 0]), { span: { start, length } }), shotOf({ length: 48 }));
    expect(span(0, 48)).toEqual([0, 47]);
    expect(span(-10, 100)).toEqual([10, 57]);
    expect(span(40, 100)).toEqual([0, 7]);
    expect(span(47, 1)).toEqual([0, 1]);
  });
});
