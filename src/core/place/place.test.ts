import { placeMoment } from '../testing/documents';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, corners } from '../picture/matrix';
import { PLACEMENTS, placeMatrix, placement, wholePlace } from './place';
import { still } from '../base/value';

const size = fc.record({ w: fc.integer({ min: 1, max: 4000 }), h: fc.integer({ min: 1, max: 4000 }) });
const placed = (
  name: (typeof PLACEMENTS)[number]['name'],
  source: { w: number; h: number },
  shot: { w: number; h: number },
) => {
  const { position, scale } = placement(name, source, shot, { fills: false, border: 0 });
  const points = corners(
    placeMatrix(placeMoment({ ...wholePlace(), position: still(position), scale: still(scale) }, 0, shot), source),
    source.w,
    source.h,
  );
  return { left: points[0]![0], top: points[0]![1], right: points[2]![0], bottom: points[2]![1] };
};

describe('one-click placements', () => {
  test('fit lies within the shot and touches two sides; fill covers it and touches two sides', () => {
    fc.assert(
      fc.property(size, size, (source, shot) => {
        const fit = placed('fit', source, shot);
        expect(fit.left).toBeGreaterThanOrEqual(-1e-6);
        expect(fit.bottom).toBeLessThanOrEqual(shot.h + 1e-6);
        expect(Math.min(Math.abs(fit.left), Math.abs(fit.top))).toBeLessThan(1e-6);
        const fill = placed('fill', source, shot);
        expect(fill.left).toBeLessThanOrEqual(1e-6);
        expect(fill.bottom).toBeGreaterThanOrEqual(shot.h - 1e-6);
        expect(Math.max(fill.left, fill.top)).toBeGreaterThan(-1e-6);
      }),
    );
  });

  test('halves and corners stay in their part of the shot', () => {
    fc.assert(
      fc.property(
        size,
        size,
        fc.constantFrom(...PLACEMENTS.slice(3).map((entry) => entry.name)),
        (source, shot, name) => {
          const box = placed(name, source, shot);
          const e = 1e-6;
          if (name.includes('left')) expect(box.right).toBeLessThanOrEqual(shot.w / 2 + e);
          if (name.includes('right')) expect(box.left).toBeGreaterThanOrEqual(shot.w / 2 - e);
          if (name.includes('top')) expect(box.bottom).toBeLessThanOrEqual(shot.h / 2 + e);
          if (name.includes('bottom')) expect(box.top).toBeGreaterThanOrEqual(shot.h / 2 - e);
        },
      ),
    );
  });

  test('filled, the pane cuts exactly the part of the shot, and the source covers it', () => {
    const border = fc.integer({ min: 0, max: 60 });
    const shots = fc.record({ w: fc.integer({ min: 320, max: 4000 }), h: fc.integer({ min: 320, max: 4000 }) });
    fc.assert(
      fc.property(size, shots, border, (source, shot, border) => {
        for (const [one, other] of [
          ['left', 'right'],
          ['top', 'bottom'],
          ['top-left', 'bottom-right'],
        ] as const) {
          const boxes = [one, other].map((name) => {
            const put = placement(name, source, shot, { fills: true, border });
            const [x, y] = put.position;
            const drawn = { w: source.w * put.scale[0], h: source.h * put.scale[0] };
            const shown = { w: put.pane?.width ?? drawn.w, h: put.pane?.height ?? drawn.h };
            expect(drawn.w).toBeGreaterThanOrEqual(shown.w - 1e-6);
            expect(drawn.h).toBeGreaterThanOrEqual(shown.h - 1e-6);
            return { l: x - shown.w / 2, r: x + shown.w / 2, t: y - shown.h / 2, b: y + shown.h / 2 };
          });
          // the edges are `border` off the shot’s, and as far from each other; half a pixel is not cut
          const near = (a: number, b: number) => expect(Math.abs(a - b)).toBeLessThanOrEqual(0.26);
          const [a, b] = [boxes[0]!, boxes[1]!];
          near(a.l, border - shot.w / 2);
          near(a.t, border - shot.h / 2);
          near(b.r, shot.w / 2 - border);
          near(b.b, shot.h / 2 - border);
          if (one !== 'top') near(b.l - a.r, border);
          if (one !== 'left') near(b.t - a.b, border);
        }
      }),
    );
  });

  test('nothing is cut where nothing goes beyond', () => {
    const shot = { w: 1280, h: 720 };
    expect(placement('top-left', { w: 1920, h: 1080 }, shot, { fills: true, border: 0 }).pane).toBeNull();
    expect(placement('fill', { w: 400, h: 400 }, shot, { fills: true, border: 0 }).pane).toBeNull();
    expect(placement('left', { w: 400, h: 400 }, shot, { fills: false, border: 0 }).pane).toBeNull();
    expect(placement('left', shot, shot, { fills: true, border: 0 }).pane).toEqual({
      centre: [-320, 0],
      width: 640,
      height: 720,
    });
  });

  test('centre is the source’s own size, in the middle', () => {
    expect(placed('centre', { w: 100, h: 50 }, { w: 640, h: 360 })).toEqual({
      left: 270,
      top: 155,
      right: 370,
      bottom: 205,
    });
  });
});

describe('place', () => {
  const source = { w: 100, h: 60 };
  const shot = { w: 640, h: 360 };

  test('the anchor lands where position says, whatever the scale, rotation and flip', () => {
    const coordinate = fc.integer({ min: -300, max: 300 });
    fc.assert(
      fc.property(
        coordinate,
        coordinate,
        coordinate,
        coordinate,
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        fc.integer({ min: -720, max: 720 }),
        fc.boolean(),
        (x, y, ax, ay, scale, rotation, flipX) => {
          const m = placeMatrix(
            placeMoment(
              {
                ...wholePlace(),
                position: still([x, y]),
                scale: still([scale, scale]),
                rotation: still(rotation),
                anchor: still([ax, ay]),
                flipX,
                flipY: false,
              },
              0,
              shot,
            ),
            source,
          );
          const [u, v] = apply(m, source.w / 2 + ax, source.h / 2 + ay);
          expect(u).toBeCloseTo(320 + x, 4);
          expect(v).toBeCloseTo(180 + y, 4);
        },
      ),
    );
  });

  test('rotation is clockwise: a quarter turn takes the right edge to the bottom', () => {
    const m = placeMatrix(placeMoment({ ...wholePlace(), rotation: still(90) }, 0, shot), source);
    expect(apply(m, 100, 30)).toEqual([320, 230]);
  });

  test('a sideways flip mirrors about the anchor', () => {
    const m = placeMatrix(placeMoment({ ...wholePlace(), flipX: true }, 0, shot), source);
    expect(apply(m, 0, 0)).toEqual([370, 150]);
  });
});
