import { describe, expect, test } from '@jest/globals';
import { newPass } from '../document/edits/passes';
import type { LayerId, PassId, StockId } from '../document/schema';
import { still } from '../base/value';
import { clipStock, colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import {
  type Against,
  onNothing,
  planAlone,
  planBefore,
  planBehind,
  planWithout,
  sourcePlan,
  viewPlan,
  type Viewed,
} from './looks';

const blur = newPass('blur' as PassId, 'blur');
const project = projectOf([
  layerOf('rail', colourSource([1, 0, 0])),
  layerOf('captain', colourSource([0, 1, 0]), { passes: [blur], opacity: still(0.3), blend: 'multiply', shown: false }),
  layerOf('deck', colourSource([0, 0, 1])),
]);
const viewed = (change: Partial<Viewed>): Viewed => ({
  project,
  shot: SHOT,
  layer: 'captain' as LayerId,
  pass: 'blur' as PassId,
  view: 'picture',
  ground: null,
  reduction: 2,
  ...change,
});
const layers = (change: Partial<Viewed>, side?: 'before') =>
  viewPlan(viewed(change), 0, side)!.layers.map((layer) => layer.id);

describe('what a view shows', () => {
  test('the picture is the shot; before, the chosen pass is left out', () => {
    expect(layers({})).toEqual(['deck', 'rail']);
    const seen = {
      ...project,
      shots: [{ ...project.shots[0]!, layers: project.shots[0]!.layers.map((layer) => ({ ...layer, shown: true })) }],
    };
    const passes = (side?: 'before') =>
      viewPlan(viewed({ project: seen, view: 'compare' }), 0, side)!.layers[1]!.passes.map((pass) => pass.id);
    expect(passes()).toEqual(['blur']);
    expect(passes('before')).toEqual([]);
  });

  test('a layer alone is seen hidden or not, opaque and unmixed, on clear, on a colour or on what lies below', () => {
    const alone = viewPlan(viewed({ view: 'alone' }), 0)!;
    expect(alone.layers.map((layer) => [layer.id, layer.opacity, layer.blend])).toEqual([['captain', 1, 'normal']]);
    expect(alone.background).toBeNull();
    expect(viewPlan(viewed({ view: 'alone', ground: [0.5, 0.5, 0.5] }), 0)!.background).toEqual([0.5, 0.5, 0.5]);
    expect(layers({ view: 'alone', ground: 'below' })).toEqual(['deck', 'captain']);
  });

  test('its matte is judged by itself; without any pass on the side before', () => {
    expect(layers({ view: 'matte' })).toEqual(['captain']);
    expect(viewPlan(viewed({ view: 'matte' }), 0, 'before')!.layers[0]!.passes).toEqual([]);
  });

  test('before is otherwise the layer without its grade, or a still, fitted into the shot and seen whole', () => {
    const graded = {
      ...project.shots[0]!.layers[1]!,
      shown: true,
      passes: [newPass('tone' as PassId, 'tone'), blur, newPass('wheels' as PassId, 'wheels')],
    };
    const still = { ...clipStock('pinned', 640, 200), kind: 'image' as const };
    const seen = { ...projectOf([graded]), stock: [still] };
    const before = (against: Against) =>
      viewPlan(viewed({ project: seen, view: 'compare', against, reduction: 1 }), 0, 'before');
    expect(before('grade')!.layers[0]!.passes.map(({ id }) => id)).toEqual(['blur']);
    const plan = before(still.id)!;
    const { width, height } = seen.shots[0]!;
    expect([plan.width, plan.height]).toEqual([width, height]);
    const [a, b, c, d, e, f] = plan.layers[0]!.matrix;
    const fitted = Math.min(width / 640, height / 200);
    expect([a, b, c, d]).toEqual([fitted, 0, 0, fitted]);
    expect([e, f]).toEqual([(width - 640 * fitted) / 2, (height - 200 * fitted) / 2]);
    expect(before('gone' as StockId)).toBeNull();
  });

  test('a shot that is gone shows nothing', () => {
    expect(viewPlan(viewed({ shot: 'gone' as never }), 0)).toBeNull();
  });
});

describe('further looks', () => {
  test('what lies behind a layer is what stands below it, over nothing', () => {
    const plan = planBehind(project, project.shots[0]!, project.shots[0]!.layers[1]!, 0, 1);
    expect([plan.layers.map(({ id }) => id), plan.background]).toEqual([['deck'], null]);
    expect(planBehind(project, project.shots[0]!, project.shots[0]!.layers[2]!, 0, 1).layers).toEqual([]);
  });

  const [shot] = project.shots;
  const captain = shot!.layers[1]!;
  const ids = (plan: { layers: readonly { id: string }[] }) => plan.layers.map(({ id }) => id);

  test('a layer alone is over nothing, shown though it is hidden, and stays where what it follows takes it', () => {
    const alone = planAlone(project, shot!, captain, 0, 1);
    expect(ids(alone)).toEqual(['captain']);
    expect(alone.background).toBeNull();
    expect(alone.layers[0]!.passes.map(({ id }) => id)).toEqual(['blur']);
    expect(planAlone(project, shot!, captain, 0, 1, []).layers[0]!.passes).toEqual([]);
    const moved = layerOf('rail', colourSource([1, 0, 0]));
    moved.place.position = still([20, 0]);
    const following = { ...captain, parent: { layer: 'rail' as LayerId, rotation: true, scale: true } };
    const other = projectOf([moved, following]);
    expect(planAlone(other, other.shots[0]!, following, 0, 1).layers[0]!.matrix).not.toEqual(alone.layers[0]!.matrix);
  });

  test('without a layer the rest is as it was; nothing lies behind when that is asked for', () => {
    expect(ids(planWithout(project, shot!, 'deck' as LayerId, 0, 1))).toEqual(['rail']);
    expect(onNothing(project, shot!).shots[0]!.background).toBeNull();
  });

  test('a source has no passes; what comes into a pass has those before it', () => {
    expect(sourcePlan(project, shot!, captain, 0, 1)!.passes).toEqual([]);
    const twice = { ...captain, passes: [blur, { ...blur, id: 'second' as PassId }] };
    expect(planBefore(project, shot!, twice, 'second' as PassId, 0)!.passes.map(({ id }) => id)).toEqual(['blur']);
  });
});
