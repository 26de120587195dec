import { newSource, stockSource } from '../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyEdit, colourSource, layerOf, projectOf, SHOT, shotOf } from '../testing/documents';
import { checkChanges } from './check';
import { perform, type Edit } from './edit';
import { renameLayer, setOpacity, setParent } from './edits/layers';
import { pasteMasks } from './edits/masks';
import { addStock } from './edits/project';
import { newMask, newShape, type MaskId } from './mask';
import { salvaged } from './salvage';
import { projectSchema, type LayerId, type Project, type ShotId, type StockId } from './schema';

const deck = () => layerOf('deck', colourSource([0, 0, 1]));
const project = projectOf([deck(), layerOf('rail', colourSource([1, 0, 0]))]);
const at = { shot: SHOT, layer: 'deck' as LayerId };
const checked = (edit: Edit, base: Project = project) => {
  const result = perform(base, edit)!;
  checkChanges(result.project, result.changes, edit.name);
};

describe('an edit is checked before it is kept', () => {
  test.each<[string, Edit, RegExp]>([
    [
      'a name of nothing but spaces',
      renameLayer(project, at, '  '),
      /“Rename deck to .*” was not done: name: too small/,
    ],
    ['an opacity of 70', setOpacity(project, at, 70), /was not done: opacity/],
    [
      'stock with a rate beyond all',
      addStock({
        id: 's' as StockId,
        name: 's',
        file: 's.wav',
        kind: 'sound',
        facts: { codec: 'pcm', alpha: false, bytes: 9, sound: { channels: 2, sampleRate: 2_000_000, codec: 'pcm' } },
        line: [],
      }),
      /samplerate: too big/i,
    ],
    [
      'more masks than a layer can have',
      pasteMasks(
        at,
        Array.from({ length: 201 }, (_, i) => newMask(`m${i}` as MaskId, 'm', newShape('ellipse', { w: 9, h: 9 }))),
        (
          (n) => () =>
            `new-${n++}`
        )(0),
      ),
      /masks: too big/,
    ],
    [
      'an id that stands twice',
      { name: 'Twice', apply: (draft) => void draft.shots[0]!.layers.push(deck()) },
      /“deck” stands twice/,
    ],
    [
      'stock that is not there',
      {
        name: 'Gone',
        apply: (draft) => void (draft.shots[0]!.layers[0]!.source = stockSource('gone' as StockId)),
      },
      /not in the project/,
    ],
    [
      'a circle',
      {
        name: 'Circle',
        apply: (draft) =>
          draft.shots[0]!.layers.forEach(
            (layer, i, all) => void (layer.parent = { layer: all[1 - i]!.id, rotation: true, scale: true }),
          ),
      },
      /follow each other in a circle/,
    ],
    [
      'a field that there is not',
      {
        name: 'Extra',
        apply: (draft) => void ((draft.shots[0]!.layers[0] as unknown as Record<string, unknown>)['glow'] = 1),
      },
      /Extra/,
    ],
  ])('%s is refused with its reason', (_, edit, reason) => {
    expect(() => checked(edit)).toThrow(reason);
  });

  test('everything that ordinary edits make passes, as it does by the whole schema', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 20 }), (makers) => {
        let now = project;
        for (const make of makers) {
          const edit = make(now);
          const result = perform(now, edit);
          if (!result) continue;
          expect(() => checkChanges(result.project, result.changes, edit.name)).not.toThrow();
          now = result.project;
        }
        expect(projectSchema.safeParse(now).success).toBe(true);
      }),
    );
  });

  test('one keyframe among many is checked without looking at the rest of the project', () => {
    const keys = Array.from({ length: 20_000 }, (_, at) => ({ at, value: 0.5, ease: 'linear' as const }));
    const big = projectOf([
      { ...deck(), opacity: { keys } },
      ...Array.from({ length: 300 }, (_, i) => layerOf(`l${i}`, colourSource([0, 0, 0]))),
    ]);
    // the part that is not checked would be refused
    const spoilt = structuredClone(big);
    (spoilt.shots[0]!.layers[0]!.opacity as { keys: { value: unknown }[] }).keys[19_000]!.value = 'no number';
    expect(projectSchema.safeParse(spoilt).success).toBe(false);
    const edit = renameLayer(spoilt, { shot: SHOT, layer: 'l7' as LayerId }, 'other');
    expect(() => checked(edit, spoilt)).not.toThrow();
  });

  test('a link that is right passes', () => {
    expect(() =>
      checked(setParent(project, at, { layer: 'rail' as LayerId, rotation: false, scale: false })),
    ).not.toThrow();
  });
});

describe('salvage', () => {
  test('leaves a whole document as it is', () => {
    expect(salvaged(project)).toEqual({ project, left: [] });
  });

  test('lets go of groups that are not there, or that show each other in a circle', () => {
    const group = (id: string, shot: string) => ({ ...layerOf(id, newSource('group', { shot })) });
    const gone = structuredClone(project);
    gone.shots[0]!.layers.push(group('nest', 'nowhere'));
    const found = salvaged(gone)!;
    expect(found.project).toEqual(project);
    expect(found.left).toEqual([expect.stringContaining('layer “nest” (layer “nest” shows a group')]);
    const looped = structuredClone(project);
    looped.shots[0]!.layers.push(group('in', 'inner'));
    looped.shots.push({
      ...shotOf({ layers: [group('out', SHOT)] }),
      id: 'inner' as ShotId,
      name: 'inner',
      within: SHOT,
    });
    const opened = salvaged(looped)!;
    expect(projectSchema.safeParse(opened.project).success).toBe(true);
    expect(opened.left).toHaveLength(1);
  });

  test('takes out the smallest part that cannot be read, and what hangs on it', () => {
    const raw = structuredClone(project) as unknown as {
      stock: unknown[];
      shots: { layers: Record<string, unknown>[]; markers: unknown[] }[];
    };
    raw.shots[0]!.layers[0]!['passes'] = [{ id: 'p', type: 'blur', on: 'maybe', space: 'layer', values: {} }];
    raw.shots[0]!.markers = [
      { at: 'soon', name: '', colour: 'sand' },
      { at: 4, name: 'four', colour: 'moss' },
    ];
    raw.shots[0]!.layers.push({
      ...structuredClone(raw.shots[0]!.layers[1]!),
      id: 'boat',
      name: 'boat',
      source: stockSource('nobody' as never),
    });
    const { project: read, left } = salvaged(raw)!;
    expect(read.shots[0]!.layers.map((layer) => [layer.name, layer.passes.length])).toEqual([
      ['deck', 0],
      ['rail', 0],
    ]);
    expect(read.shots[0]!.markers).toEqual([{ at: 4, name: 'four', colour: 'moss' }]);
    expect(left.toSorted()).toEqual([
      expect.stringContaining('layer “boat”'),
      expect.stringContaining('marker “” (at:'),
      expect.stringContaining('pass “blur” (on:'),
    ]);
  });

  test('what is no document at all is nothing', () => {
    for (const raw of [null, 7, [], { format: 1 }, { ...project, shots: 'none' }]) expect(salvaged(raw)).toBeNull();
  });
});
