import { stockSource } from '../../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import type { LayerId, PassId, Project } from '../schema';
import { SHOT, clipStock, colourSource, layerOf, projectOf } from '../../testing/documents';
import { moveLayer, trimEnd, trimStart } from './time';
import { addLayer, orderLayer, removeLayer, renameLayer, setPlace, switchLayer } from './layers';
import { addPass, newPass, orderPass, removePass, setPassValue, switchPass } from './passes';
import { addStock, removeStock } from './project';
import { perform, type Edit } from '../edit';

const grey = colourSource([0.5, 0.5, 0.5]);
const project = projectOf([layerOf('rail', grey), layerOf('captain', grey), layerOf('deck', grey)]);
const at = { shot: SHOT, layer: 'captain' as LayerId };
const after = (...edits: ((project: Project) => Edit)[]) =>
  edits.reduce((now, make) => perform(now, make(now))!.project, project);
const names = (result: Project) => result.shots[0]!.layers.map((layer) => layer.name);
const captain = (result: Project) => result.shots[0]!.layers.find((layer) => layer.id === at.layer)!;

describe('layers', () => {
  test('are added above the index, ordered, and removed; each step has a readable name', () => {
    expect(names(after(() => addLayer(SHOT, layerOf('kite', grey), 1)))).toEqual(['rail', 'kite', 'captain', 'deck']);
    expect(names(after((p) => orderLayer(p, at, 0)))).toEqual(['captain', 'rail', 'deck']);
    expect(names(after((p) => orderLayer(p, at, 99)))).toEqual(['rail', 'deck', 'captain']);
    expect(names(after((p) => removeLayer(p, at)))).toEqual(['rail', 'deck']);
    expect(removeLayer(project, at).name).toBe('Delete captain');
    expect(renameLayer(project, at, 'fox').name).toBe('Rename captain to fox');
    expect(switchLayer(project, at, 'shown').name).toBe('Hide captain');
  });

  test('moving in time keeps length and source time', () => {
    const { span, time } = captain(after((p) => moveLayer(p, at, 7)));
    expect(span).toEqual({ start: 7, length: 48 });
    expect(time.offset).toBe(0);
  });

  test('trimming the start leaves the end and every remaining picture where it was', () => {
    const { span, time } = captain(after((p) => trimStart(p, at, 10)));
    expect(span).toEqual({ start: 10, length: 38 });
    // the picture at shot frame 20 is source frame 20 before and after
    expect(time.offset + (20 - span.start)).toBe(20);
  });

  test('a layer keeps at least one frame however far it is trimmed', () => {
    expect(captain(after((p) => trimStart(p, at, 500))).span).toEqual({ start: 47, length: 1 });
    expect(captain(after((p) => trimEnd(p, at, -500))).span.length).toBe(1);
  });

  test('placing changes only what is named', () => {
    const place = captain(after((p) => setPlace(p, at, { position: [960 / 2, -4] }))).place;
    expect(place.position).toEqual({ still: [480, -4] });
    expect(place.scale).toEqual({ still: [1, 1] });
  });
});

describe('passes', () => {
  const key = newPass('key' as PassId, 'colour-key');
  const blur = newPass('blur' as PassId, 'blur');
  const withBoth = [() => addPass(at, key), () => addPass(at, blur)];

  test('are inserted, ordered, switched, set and removed', () => {
    expect(captain(after(...withBoth)).passes.map((pass) => pass.type)).toEqual(['colour-key', 'blur']);
    expect(
      captain(
        after(
          () => addPass(at, key),
          () => addPass(at, blur, 0),
        ),
      ).passes[0]!.type,
    ).toBe('blur');
    expect(captain(after(...withBoth, (p) => orderPass(p, at, blur.id, 0))).passes[0]!.id).toBe('blur');
    expect(captain(after(...withBoth, (p) => switchPass(p, at, key.id))).passes[0]!.on).toBe(false);
    expect(
      captain(after(...withBoth, (p) => setPassValue(p, at, blur.id, 'radius', 3))).passes[1]!.values['radius'],
    ).toEqual({ still: 3 });
    expect(captain(after(...withBoth, (p) => removePass(p, at, key.id))).passes.map((pass) => pass.id)).toEqual([
      'blur',
    ]);
  });

  test('the step of a value names the pass and the dial', () => {
    const both = after(...withBoth);
    expect(setPassValue(both, at, blur.id, 'radius', 3).name).toBe('Blur: radius');
  });
});

test('deleting stock takes its layers along, and only those', () => {
  const kite = clipStock('kite');
  const withKite = after(
    () => addStock(kite),
    () => addLayer(SHOT, layerOf('kite', stockSource(kite.id))),
  );
  const { project: without } = perform(withKite, removeStock(withKite, [kite.id]))!;
  expect(names(without)).toEqual(['rail', 'captain', 'deck']);
  expect(without.stock.map((item) => item.id)).toEqual(['plate']);
});
