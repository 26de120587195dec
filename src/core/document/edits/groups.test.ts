import { bytesOf } from '../../picture/bytes';
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { WasmExecutor } from '../../execute/backends/wasm/executor';
import { planFrame } from '../../plan/plan';
import { testRig, type TestRig } from '../../testing/rig';
import { anyEdit, colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type Layer, type LayerId, type Project, type ShotId } from '../schema';
import { groupLayers, shownIn, ungroup } from './groups';
import { setOpacity, setParent } from './layers';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const IDS = { shot: 'inner' as ShotId, layer: 'group' as LayerId };
const at = { shot: SHOT, layer: 'group' as LayerId };
const fresh = (() => {
  let count = 0;
  return () => `fresh-${(count += 1)}`;
})();
const grouped = (project: Project, layers: string[]): Project =>
  projectSchema.parse(
    perform(project, groupLayers(project, { shot: SHOT, layers: layers as LayerId[] }, IDS, 'Group'))!.project,
  );

async function bytes(project: Project, frame: number): Promise<Uint8ClampedArray> {
  const plate = (name: string, seconds: number) =>
    Uint8Array.from({ length: 64 * 36 * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : (i * 7 + Math.round(seconds * 24) * 31 + name.length) % 256,
    );
  const executor = new WasmExecutor(rig.kernels, rig.arena, ({ stock, seconds }) =>
    Promise.resolve({ data: plate(stock, seconds), width: 64, height: 36 }),
  );
  const picture = await executor.frame(planFrame(project, SHOT, frame));
  const data = bytesOf(executor, picture);
  picture.release();
  executor.cache.clear();
  return data;
}
const apart = (a: Uint8ClampedArray, b: Uint8ClampedArray): number =>
  a.reduce((most, v, i) => (a[i | 3] || b[i | 3] ? Math.max(most, Math.abs(v - b[i]!)) : most), 0);

describe('grouping', () => {
  test('random layers and back: the same picture within 1/255 on every frame, and the same layers', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyEdit, { maxLength: 25 }), fc.nat(5), fc.nat(5), async (edits, from, count) => {
        let project = projectOf([
          layerOf('deck', colourSource([0.2, 0.6, 0.4], 30, 20)),
          layerOf('rail', colourSource([0.9, 0.1, 0.2])),
        ]);
        for (const make of edits) project = perform(project, make(project))?.project ?? project;
        const { layers, light } = project.shots[0]!;
        // layers that lie on each other, mix as usual and look at nothing outside; a group has no light of its own to mix in
        const chosen = layers.slice(from % layers.length, (from % layers.length) + 1 + count);
        const ids = chosen.map((layer) => layer.id);
        fc.pre(
          chosen.length > 0 &&
            light === 'display' &&
            layers.every((layer) => !layer.solo && !layer.parent && !layer.matte),
        );
        fc.pre(
          chosen.every((layer) => layer.blend === 'normal' && !layer.passes.some((pass) => pass.type === 'light-wrap')),
        );
        const group = grouped(project, ids);
        for (const frame of [0, 9, 30])
          expect(apart(await bytes(project, frame), await bytes(group, frame))).toBeLessThanOrEqual(1);
        const back = perform(group, ungroup(group, at, fresh))!.project;
        expect(back).toEqual(project);
      }),
      { numRuns: 40 },
    );
  }, 120_000);

  const three = projectOf(['a', 'b', 'c'].map((id) => layerOf(id, colourSource([0, 0, 0]))));

  test('a link across the border is refused by name', () => {
    const { project } = perform(
      three,
      setParent(three, { shot: SHOT, layer: 'a' as LayerId }, { layer: 'c' as LayerId, rotation: false, scale: false }),
    )!;
    expect(() => grouped(project, ['a', 'b'])).toThrow(/a follows c: choose both/);
    expect(grouped(project, ['a', 'c']).shots[1]!.layers.map((layer) => layer.name)).toEqual(['a', 'c']);
  });

  test('a group that does something is not taken apart, and says what it does', () => {
    const group = grouped(three, ['a', 'b']);
    const { project: faint } = perform(group, setOpacity(group, at, 0.5))!;
    expect(() => ungroup(faint, at, fresh)).toThrow(/its opacity or blend mode would be lost/);
  });

  test('one that is used twice gives copies, and the other goes on', () => {
    const group = grouped(three, ['a', 'b']);
    const twice: Project = {
      ...group,
      shots: group.shots.map((shot) =>
        shot.id === SHOT ? { ...shot, layers: [...shot.layers, { ...shot.layers[0]!, id: 'again' as LayerId }] } : shot,
      ),
    };
    const back = projectSchema.parse(perform(twice, ungroup(twice, at, fresh))!.project);
    expect(back.shots).toHaveLength(2);
    expect(back.shots[0]!.layers.map((layer: Layer) => layer.name)).toEqual(['a', 'b', 'c', 'Group']);
    expect(shownIn(back, IDS.shot)).toEqual(['Night ferry']);
  });
});
