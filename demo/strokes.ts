import type { SelectHint } from '../src/core/analysis/select';

/** Strokes that anyone would make on the signal tower's still: two over what stays, one through the sky. Pixels from its top left. */
export const TOWER_STROKES: readonly SelectHint[] = [
  {
    keep: true,
    radius: 7,
    points: [
      [842, 160],
      [842, 215],
      [816, 265],
      [776, 620],
      [400, 640],
      [150, 560],
    ],
  },
  {
    keep: true,
    radius: 8,
    points: [
      [712, 203],
      [790, 245],
      [786, 198],
      [898, 198],
      [898, 236],
      [842, 160],
      [840, 85],
      [930, 100],
    ],
  },
  {
    keep: false,
    radius: 14,
    points: [
      [80, 420],
      [80, 120],
      [640, 380],
      [640, 60],
      [1000, 40],
      [1000, 300],
      [1220, 120],
    ],
  },
];
