import { expect, test } from '@jest/globals';
import { snappedShift } from './snap-place';

const shot = { width: 640, height: 360 };
const box = { left: -50, right: 50, top: -20, bottom: 20 };

test('edges and middles meet those of the shot and of other layers when they are near, and only then', () => {
  expect(snappedShift(box, [], shot, [3, 100], 5)).toEqual({ shift: [0, 100], x: 0, y: null });
  expect(snappedShift(box, [], shot, [267, 157], 5)).toEqual({ shift: [270, 160], x: 320, y: 180 });
  const other = { left: 93, right: 193, top: 61, bottom: 101 };
  // its right edge meets the other's left one; its bottom the other's top
  expect(snappedShift(box, [other], shot, [41, 43], 5)).toEqual({ shift: [43, 41], x: 93, y: 61 });
  expect(snappedShift(box, [other], shot, [33, 30], 5)).toEqual({ shift: [33, 30], x: null, y: null });
});

test('further lines are met as well: by edges, and by the middle', () => {
  const lines = { upright: [120], level: [-77] };
  expect(snappedShift(box, [], shot, [72, 40], 5, lines)).toEqual({ shift: [70, 40], x: 120, y: null });
  expect(snappedShift(box, [], shot, [118, -75], 5, lines)).toEqual({ shift: [120, -77], x: 120, y: -77 });
});

test('of several lines the nearest is taken; with no reach nothing is', () => {
  const other = { left: 54, right: 400, top: -300, bottom: -290 };
  expect(snappedShift(box, [other], shot, [3, 60], 8).x).toBe(54);
  expect(snappedShift(box, [other], shot, [1, 60], 0)).toEqual({ shift: [1, 60], x: null, y: null });
});
