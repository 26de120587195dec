import { describe, expect, test } from '@jest/globals';
import type { Samples } from '../track/samples';
import { readTrackCsv, readTrackJson, trackCsv, trackJson } from './track-file';

const samples: Samples = {
  first: 4,
  rows: [
    {
      confidence: 1,
      points: [
        [1.5, -2],
        [3, 4],
      ],
    },
    null,
    {
      confidence: 0.25,
      points: [
        [2, -2],
        [3.125, 4],
      ],
    },
  ],
};

test('CSV and JSON come back as they were written', () => {
  const rows = new Map([
    [4, samples.rows[0]],
    [6, samples.rows[2]],
  ]);
  expect(trackCsv({ kind: 'pair', samples })).toBe(
    'frame,confidence,x1,y1,x2,y2\n4,1,1.5,-2,3,4\n6,0.25,2,-2,3.125,4\n',
  );
  expect(readTrackCsv(trackCsv({ kind: 'pair', samples }), 'a.csv')).toEqual({ kind: 'pair', rows, name: null });
  expect(readTrackJson(trackJson('Mast', { kind: 'pair', samples }), 'a.json')).toEqual({
    kind: 'pair',
    rows,
    name: 'Mast',
  });
});

test('columns may come in any order, with semicolons, and without confidence', () => {
  expect(readTrackCsv('Y1;frame;X1\r\n2;0;7\r\n', 'b.csv').rows.get(0)).toEqual({ confidence: 1, points: [[7, 2]] });
});

describe('a CSV that cannot be read says where', () => {
  test.each([
    ['', 'line 1 has no column “frame”'],
    ['frame,y1\n', 'line 1 has no column “x1”'],
    ['frame,x1,y1\n', 'it has no rows'],
    ['frame,x1,y1\n0,1,2\n1,,2\n', 'line 3, column “x1” is empty'],
    ['frame,x1,y1\n0,NaN,2\n', 'line 2, column “x1”: “NaN” is not a number'],
    ['frame,x1,y1\n0.04,1,2\n', 'line 2, column “frame”: 0.04 is no whole frame'],
    ['frame,x1,y1\n3,1,2\n3,1,2\n', 'line 3: frame 3 stands twice'],
    ['frame,confidence,x1,y1\n3,7,1,2\n', 'line 2, column “confidence”: 7 is not between 0 and 1'],
    ['frame,x1,y1\n3,1,2e9\n', 'line 2, column “y1”: 2000000000 is too far away'],
  ])('%j', (text, why) => {
    expect(() => readTrackCsv(text, 'kite.csv')).toThrow(`“kite.csv” is not a track that can be read: ${why}`);
  });
  test('seconds are recognised', () => {
    expect(() => readTrackCsv('frame,x1,y1\n0.5,1,2\n', 'k.csv')).toThrow(/seconds/);
  });
  test.each([
    '{',
    '[]',
    '{"track":1,"name":"x","kind":"pair","samples":[{"frame":0,"confidence":1,"points":[[0,0]]}]}',
  ])('JSON %s', (text) => {
    expect(() => readTrackJson(text, 'x.json')).toThrow(/not a track/);
  });
});
