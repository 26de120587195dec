import { problemsOf } from '../base/problems';
import { stockSource } from '../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import { colourSource, layerOf, projectOf } from '../testing/documents';
import { newPass } from './edits/passes';
import { projectSchema, type PassId, type StockId } from './schema';

const deck = layerOf('deck', colourSource([0, 0, 1]));
const raw = (change: (project: Record<string, never> & ReturnType<typeof projectOf>) => void) => {
  const copy = structuredClone(projectOf([{ ...deck, passes: [newPass('blur-1' as PassId, 'blur')] }]));
  change(copy as never);
  return projectSchema.safeParse(copy);
};

describe('the document', () => {
  test('holds every value still or keyed, passes with an area, values that jitter and follow', () => {
    const keyed = raw((project) => {
      const layer = project.shots[0]!.layers[0]!;
      layer.opacity = {
        keys: [
          { at: 0, value: 0, ease: 'linear' },
          { at: 24, value: 1, ease: { cubic: [0.4, 0, 0.2, 1] } },
        ],
        drivers: [{ type: 'jitter', amount: 0.1, every: 3, smooth: 0.5, seed: 7 }],
      };
      layer.place.position = { still: [0, 0], drivers: [{ type: 'follow-of-later', track: 'lantern' }] };
      layer.passes[0]!.area = { masks: ['mask-1' as never], side: 'outside' };
    });
    expect(keyed.success).toBe(true);
  });

  test.each<[string, Parameters<typeof raw>[0], RegExp]>([
    [
      'keyframes out of order',
      (p) =>
        (p.shots[0]!.layers[0]!.opacity = {
          keys: [
            { at: 5, value: 1, ease: 'hold' },
            { at: 5, value: 0, ease: 'hold' },
          ],
        }),
      /Invalid|ascending/,
    ],
    [
      'a value out of range',
      (p) => (p.shots[0]!.layers[0]!.passes[0]!.values['radius'] = { still: -1 } as never),
      /Invalid|Too small/,
    ],
    [
      'a value that the pass does not have',
      (p) => (p.shots[0]!.layers[0]!.passes[0]!.values['glow'] = { still: 1 } as never),
      /glow/,
    ],
    ['a pass without a name', (p) => (p.shots[0]!.layers[0]!.passes[0]!.type = 'No Name!'), /Invalid/],
    ['an unknown field', (p) => ((p as Record<string, unknown>)['extra'] = 1), /extra/],
    [
      'stock that is not there',
      (p) => (p.shots[0]!.layers[0]!.source = stockSource('gone' as StockId)),
      /not in the project/,
    ],
    [
      'stock that changes by keyframes: what a layer shows is one thing',
      (p) =>
        (p.shots[0]!.layers[0]!.source = {
          type: 'stock',
          values: { stock: { keys: [{ at: 0, value: 'clip', ease: 'hold' }] } },
        } as never),
      /Unrecognized|Invalid/,
    ],
    [
      'a group that changes by keyframes',
      (p) =>
        (p.shots[0]!.layers[0]!.source = {
          type: 'group',
          values: { shot: { keys: [{ at: 0, value: 'shot-1', ease: 'hold' }] } },
        } as never),
      /Unrecognized|Invalid/,
    ],
    ['the same id twice', (p) => p.shots[0]!.layers.push(structuredClone(deck)), /stands twice/],
    ['a rate of nothing', (p) => (p.shots[0]!.rate = { num: 0, den: 1 }), /rate/],
    ['an enormous shot', (p) => (p.shots[0]!.width = 1e6), /width/],
    ['an id that could be a path', (p) => (p.shots[0]!.id = '../../etc' as never), /id/],
  ])('refuses %s', (_, change, reason) => {
    const result = raw(change);
    expect(result.success).toBe(false);
    expect(problemsOf(result.error!, 9)).toMatch(reason);
  });
});
