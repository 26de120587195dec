import { describe, expect, test } from '@jest/globals';
import { at, done, layerOfProject, project, state } from '../../testing/boat';
import { clipStock } from '../../testing/documents';
import { newMask, newShape, type MaskId } from '../mask';
import {
  projectSchema,
  stockOf,
  type Layer,
  type LayerId,
  type LayerPart,
  type PassId,
  type Project,
  type StockId,
} from '../schema';
import { fadesOf, setFade } from './ends';
import { followOf } from './follow';
import { addMask, usesMasks } from './masks';
import { addPass, newPass } from './passes';
import { setMotionBlur } from './time';
import { switchLayer } from './layers';
import { pasteParts, replaceSource } from './parts';

let count = 0;
const fresh = () => `fresh-${++count}`;
const DECK = 'deck' as LayerId;
const mask = newMask('ring' as MaskId, 'ring', newShape('ellipse', { w: 64, h: 36 }), 'moss');
const cut = { ...newPass('cut' as PassId, 'mask', null), area: { masks: ['ring' as MaskId], side: 'inside' as const } };
const full: Project = [
  addMask(at, mask as never),
  addPass(at, newPass('soft' as PassId, 'blur', null, { radius: 3 })),
  addPass(at, cut as never),
  setMotionBlur(project, at, { shutter: 0.5, samples: 8 }),
].reduce((now, edit) => done(edit, now), project);
const pasted = (parts: LayerPart[], to: readonly LayerId[] = [DECK], base = full): Project =>
  done(pasteParts(at.shot, layerOfProject(base), to, new Set(parts), fresh), base);

describe('parts of a layer given to another', () => {
  test('its place takes the other where it is, keyframes and all, and nothing else', () => {
    const result = pasted(['place']);
    for (let frame = 0; frame < 48; frame += 5)
      expect(state(result, 'deck', frame).slice(0, 2)).toEqual(state(full, 'boat', frame).slice(0, 2));
    const [deck, before] = [layerOfProject(result, 'deck'), layerOfProject(full, 'deck')];
    expect([deck.passes, deck.masks, deck.source, deck.name]).toEqual([
      before.passes,
      before.masks,
      before.source,
      before.name,
    ]);
  });
  test('what followed a track through the layer follows it through the other one; sound fades along', () => {
    const boat = layerOfProject(done(setFade(full, at, 'in', 8), full));
    const link = {
      type: 'follow',
      track: 'way',
      layer: 'boat',
      as: 'position',
      from: 0,
      weight: 1,
      lag: 0,
      parts: { x: true, y: true, turn: true, size: true },
    };
    const following = { ...boat, place: { ...boat.place, position: { ...boat.place.position, drivers: [link] } } };
    const result = done(pasteParts(at.shot, following as Layer, [DECK], new Set(['place', 'ends']), fresh), full);
    const deck = layerOfProject(result, 'deck');
    expect(followOf(deck.place.position)?.layer).toBe('deck');
    expect(deck.sound.gain.drivers).toEqual(deck.opacity.drivers);
    expect(fadesOf(deck)).toEqual({ in: 8, out: 0 });
  });
  test('passes come after its own, and use masks only when those come along', () => {
    const both = layerOfProject(pasted(['passes', 'masks']), 'deck');
    expect(both.passes.map(({ type }) => type)).toEqual(['blur', 'mask']);
    expect(both.masks).toHaveLength(1);
    expect(both.masks[0]!.id).not.toBe('ring');
    expect(both.passes.some((pass) => usesMasks(pass, both.masks[0]!.id))).toBe(true);
    const alone = layerOfProject(pasted(['passes']), 'deck');
    expect(alone.passes).toHaveLength(2);
    expect(alone.passes.some(({ area }) => area?.masks.length)).toBe(false);
    expect(projectSchema.safeParse(pasted(['passes', 'masks'])).error?.issues).toBeUndefined();
  });
  test('several layers at once get ids of their own; a locked one is left', () => {
    const twice = pasted(['passes'], [DECK, at.layer]);
    const ids = twice.shots[0]!.layers.flatMap(({ passes }) => passes.map(({ id }) => id));
    expect(new Set(ids).size).toBe(ids.length);
    const locked = done(switchLayer(full, { shot: at.shot, layer: DECK }, 'locked'), full);
    expect(layerOfProject(pasted(['place', 'passes', 'masks'], [DECK], locked), 'deck')).toEqual(
      layerOfProject(locked, 'deck'),
    );
  });
});

describe('another source', () => {
  const clips: Project = {
    ...full,
    stock: [
      { ...clipStock('plate'), name: 'boat' },
      { ...clipStock('other'), name: 'storm' },
    ],
  };
  test('shows instead, and all that was done stays', () => {
    const result = done(replaceSource(clips, at, 'other' as StockId), clips);
    const [now, before] = [layerOfProject(result), layerOfProject(clips)];
    expect(stockOf(now)).toBe('other');
    expect(now.name).toBe('storm');
    expect({ ...now, source: null, name: null, time: null }).toEqual({
      ...before,
      source: null,
      name: null,
      time: null,
    });
  });
});
