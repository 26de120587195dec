import { placeMoment } from '../testing/documents';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, corners, projective, type Projective } from '../picture/matrix';
import type { Place } from '../document/schema';
import { PLACEMENTS, placeMatrix, placement, showsFront, tiltMatrix, wholePlace } from './place';
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
          // the edges are `border` off the shot’s, and as far from each other; half a pixel is not cut, a quarter at each edge
          const near = (a: number, b: number, edges = 1) =>
            expect(Math.abs(a - b)).toBeLessThanOrEqual(0.25 * edges + 0.01);
          const [a, b] = [boxes[0]!, boxes[1]!];
          near(a.l, border - shot.w / 2);
          near(a.t, border - shot.h / 2);
          near(b.r, shot.w / 2 - border);
          near(b.b, shot.h / 2 - border);
          if (one !== 'top') near(b.l - a.r, border, 2);
          if (one !== 'left') near(b.t - a.b, border, 2);
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

describe('layers in depth', () => {
  const SHOT = { w: 640, h: 360 };
  const CARD = { w: 200, h: 100 };
  type Point3 = readonly [number, number, number];
  /** Seen from before a point by a camera whose rays are followed one by one. Pixels from the shot's middle, z away from the eye. */
  const seen = ([x, y, z]: Point3, [vx, vy]: readonly [number, number], perspective: number): [number, number] => {
    const eye = Math.hypot(SHOT.w, SHOT.h) / 2 / perspective;
    const share = eye / (eye + z);
    return [SHOT.w / 2 + vx + (x - vx) * share, SHOT.h / 2 + vy + (y - vy) * share];
  };
  const at = (place: Partial<Place>, vanishing: [number, number] | null) => {
    const moment = placeMoment({ ...wholePlace(), ...place }, 0, SHOT);
    return tiltMatrix({ ...moment, shot: { ...moment.shot, ...(vanishing && { vanishing }) } }, CARD);
  };
  const through = ([a, b, c, d, e, f, g, h, i]: Projective, x: number, y: number): [number, number] => {
    const w = g * x + h * y + i;
    return [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
  };

  test('lie where a camera before the vanishing point sees them', () => {
    const place = {
      position: still<[number, number]>([90, -40]),
      anchor: still<[number, number]>([-100, 20]),
      depth: still(150),
      perspective: still(0.7),
      tilt: still<[number, number]>([0, 50]),
    };
    for (const vanishing of [[0, 0], [-200, 35], null] as const) {
      const map = at(place, vanishing && [...vanishing])!;
      for (const [u, v] of [
        [0, 0],
        [200, 0],
        [200, 100],
        [30, 70],
      ] as const) {
        // turned about the upright axis through the anchor, which lies at (0, 70) of the card
        const turn = (50 * Math.PI) / 180;
        const point: Point3 = [90 + u * Math.cos(turn), -40 + v - 70, 150 - u * Math.sin(turn)];
        const wanted = seen(point, vanishing ?? [90, -40], 0.7);
        through(map, u, v).forEach((value, axis) => expect(value).toBeCloseTo(wanted[axis]!, 6));
      }
    }
  });

  test('two cards on one hinge go on touching there while they turn, seen from one point', () => {
    fc.assert(
      fc.property(fc.integer({ min: -85, max: 85 }), fc.integer({ min: -85, max: 85 }), (left, right) => {
        const hinge = { position: still<[number, number]>([120, 60]), perspective: still(0.6) };
        const side = (anchor: number, tilt: number) =>
          at(
            { ...hinge, anchor: still<[number, number]>([anchor, 0]), tilt: still<[number, number]>([0, tilt]) },
            [0, 0],
          ) ??
          projective(
            placeMatrix(placeMoment({ ...wholePlace(), ...hinge, anchor: still([anchor, 0]) }, 0, SHOT), CARD),
          );
        for (const y of [0, 50, 100]) {
          const [a, b] = [through(side(100, left), 200, y), through(side(-100, right), 0, y)];
          expect(a[0]).toBeCloseTo(b[0], 6);
          expect(a[1]).toBeCloseTo(b[1], 6);
        }
      }),
    );
  });

  test('show their front until they have turned by a right angle, and flipped ones too', () => {
    for (const flipX of [false, true])
      for (const [turn, front] of [
        [0.1, true],
        [80, true],
        [100, false],
        [180, false],
        [280, true],
      ] as const) {
        const map = at({ tilt: still<[number, number]>([0, turn]), flipX }, null)!;
        expect([turn, showsFront(map, [100, 50], flipX)]).toEqual([turn, front]);
      }
  });

  test('do not come through the eye', () => {
    const [, , , , , , , , w] = at({ depth: still(-1e6), perspective: still(1) }, [0, 0])!;
    expect(w).toBeGreaterThan(0);
  });
});
