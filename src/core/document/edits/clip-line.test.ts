import { describe, expect, test } from '@jest/globals';
import { still } from '../../base/value';
import { planBefore, viewPlan } from '../../plan/looks';
import { planFrame } from '../../plan/plan';
import { layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform, type Edit } from '../edit';
import { clipLine } from '../find';
import { projectSchema, type LayerId, type PassId, type Project } from '../schema';
import { boundToLayer, passToClip, passToLayer } from './clip-line';
import { setSourceValue, stockSource } from './layers';
import { newPass, removePass, setPassValue, switchPass } from './passes';
import { setArea } from './masks';
import { togglePeg } from './keys';

const source = stockSource('plate' as never);
const tone = newPass('tone' as PassId, 'tone');
const blur = newPass('blur' as PassId, 'blur');
const at = { shot: SHOT, layer: 'first' as LayerId };
const before = projectOf([layerOf('first', source, { passes: [tone, blur] }), layerOf('second', source)]);
const made = (project: Project, ...edits: ((project: Project) => Edit)[]): Project =>
  edits.reduce((now, edit) => perform(now, edit(now))!.project, project);
const given = made(before, (project) => passToClip(project, at, tone.id));
/** Types of what works on each layer, top first, as it is planned. */
const lines = (project: Project): string[][] =>
  planFrame(project, SHOT, 0)
    .layers.toReversed()
    .map((layer) => layer.passes.map(({ type }) => type));

describe('a pass of the clip', () => {
  test('is seen on every layer made from it, before their own, and goes back to one of them', () => {
    expect(lines(before)).toEqual([['tone', 'blur'], []]);
    expect(lines(given)).toEqual([['tone', 'blur'], ['tone']]);
    expect(projectSchema.parse(JSON.parse(JSON.stringify(given)))).toEqual(given);
    const back = made(given, (project) => passToLayer(project, at, tone.id));
    expect(lines(back)).toEqual(lines(before));
    expect(clipLine(back, back.shots[0]!.layers[0]!)).toEqual([]);
  });

  test('gives the very picture that it gave on the layer', () => {
    const [first, second] = [before, given].map((project) => planFrame(project, SHOT, 0).layers.at(-1)!);
    expect(first!.key).toBe(second!.key);
  });

  test('is turned, switched and deleted from any of the layers, for all of them', () => {
    const other = { ...at, layer: 'second' as LayerId };
    const turned = made(given, (project) => setPassValue(project, other, tone.id, 'exposure', 1.5));
    for (const layer of planFrame(turned, SHOT, 0).layers) expect(layer.passes[0]!.values['exposure']).toBe(1.5);
    expect(lines(made(turned, (project) => switchPass(project, other, tone.id)))).toEqual([['blur'], []]);
    expect(lines(made(turned, (project) => removePass(project, other, tone.id)))).toEqual([['blur'], []]);
  });

  test('is left out by a layer that wants the clip as it was recorded', () => {
    const bare = made(given, (project) => setSourceValue(project, at, 'bare', true));
    expect(lines(bare)).toEqual([['blur'], ['tone']]);
  });

  test('is left out before, and what comes into a pass is what those before it make', () => {
    const [layer] = given.shots[0]!.layers;
    const view = { project: given, shot: SHOT, layer: layer!.id, ground: null, reduction: 1 as const };
    const plan = viewPlan({ ...view, pass: tone.id, view: 'compare' }, 0, 'before')!;
    expect(plan.layers.map(({ passes }) => passes.map(({ type }) => type))).toEqual([[], ['blur']]);
    const into = (pass: PassId) => planBefore(given, given.shots[0]!, layer!, pass, 0)!.passes.map(({ type }) => type);
    expect(into(tone.id)).toEqual([]);
    expect(into(blur.id)).toEqual(['tone']);
  });

  test('goes with those that stand before it, so that the picture stays the same', () => {
    const both = made(before, (project) => passToClip(project, at, blur.id));
    expect(lines(both)).toEqual([
      ['tone', 'blur'],
      ['tone', 'blur'],
    ]);
    const [first, second] = [before, both].map((project) => planFrame(project, SHOT, 0).layers.at(-1)!);
    expect(first!.key).toBe(second!.key);
    const limited = made(before, (project) => setArea(project, at, tone.id, { masks: [], side: 'inside' }));
    expect(() => passToClip(limited, at, blur.id)).toThrow(/Tone cannot belong.*put it after that first/);
  });

  test('needs nothing of its layer: no area, no keyframes, no place in the shot', () => {
    expect(boundToLayer(tone)).toBeNull();
    expect(boundToLayer({ ...tone, space: 'shot' })).toContain('after Place');
    expect(boundToLayer(newPass('m' as PassId, 'mask'))).toContain('masks');
    const limited = made(before, (project) => setArea(project, at, tone.id, { masks: [], side: 'inside' }));
    expect(() => passToClip(limited, at, tone.id)).toThrow('its area is a mask of the layer');
    const keyed = made(before, (project) => togglePeg(project, at, `pass.${tone.id}.exposure`));
    expect(() => passToClip(keyed, at, tone.id)).toThrow('change over the layer’s time');
    expect(boundToLayer({ ...tone, values: { ...tone.values, exposure: still(1) } })).toBeNull();
  });
});
