import { expect, test } from '@jest/globals';
import { newMask, newShape, pathShape } from '../document/mask';
import { newPass } from '../document/edits/passes';
import { readGradeJig, readJig, writeGradeJig, writeJig } from './jig';

const masks = [
  newMask(
    'a' as never,
    'hand',
    pathShape([
      [0, 0],
      [9, 0],
      [9, 9],
    ]),
  ),
  newMask('b' as never, 'sky', newShape('line', { w: 64, h: 36 })),
];

test('what was saved as a jig is read again', () => {
  expect(readJig(writeJig('cut-out', masks), 'cut-out.jig.json')).toEqual({ jig: 1, name: 'cut-out', masks });
});

test('a grade that was saved as a jig is read again, and is not taken for masks, nor masks for it', () => {
  const passes = ['tone', 'wheels'].map((type) => newPass(type as never, type));
  const text = writeGradeJig('dusk', passes);
  expect(readGradeJig(text, 'dusk.jig.json')).toEqual({ jig: 1, name: 'dusk', passes });
  expect(() => readJig(text, 'dusk.jig.json')).toThrow('it holds no masks');
  expect(() => readGradeJig(writeJig('cut-out', masks), 'x')).toThrow('it holds no grade');
  const wrong = JSON.parse(text) as { passes: { values: Record<string, unknown> }[] };
  wrong.passes[0]!.values['exposure'] = { still: 'much' };
  expect(() => readGradeJig(JSON.stringify(wrong), 'dusk.jig.json')).toThrow(/passes\.0\.values\.exposure/);
});

test.each([
  ['no JSON', 'hello', /it is not JSON/],
  ['another JSON', '{"a":1}', /jig/],
  ['no masks', '{"jig":1,"name":"x","masks":[]}', /masks/],
  [
    'a shape of no kind',
    JSON.stringify({ jig: 1, name: 'x', masks: [{ ...masks[0], shape: { kind: 'blob' } }] }),
    /shape/,
  ],
  [
    'a path that goes too far',
    JSON.stringify({
      jig: 1,
      name: 'x',
      masks: [{ ...masks[0], shape: { kind: 'path', closed: true, path: { still: [[1e9, 0, 0, 0, 0, 0, 0]] } } }],
    }),
    /masks\.0/,
  ],
])('%s is refused in a sentence', (_, text, why) => {
  expect(() => readJig(text, 'bad.jig.json')).toThrow(why);
  expect(() => readJig(text, 'bad.jig.json')).toThrow(/“bad.jig.json” is not a jig that can be used/);
});
