// Shots of the demo that effects make: the lantern's magic, an old tape from the harbour office, a kite that leaves smoke, a title among scraps of paper.
import { still, type Value } from '../src/core/base/value';
import { newLayer, newSource } from '../src/core/document/edits/layers';
import type { Layer, LayerId, Pass, PassId, Shot } from '../src/core/document/schema';
import { SWARMS } from '../src/core/sources/swarms';

/** What shots are made with. */
interface Make {
  shot(name: string, layers: Layer[]): Shot;
  layer(stock: string, name: string, frames: number, change?: Partial<Layer>): Layer;
  pass(type: string, values?: Record<string, unknown>): Pass;
  id<T extends string>(what: string): T;
}
const flickering = (value: number, amount: number, seed: number) => ({
  still: value,
  drivers: [{ type: 'jitter' as const, amount, every: 4, smooth: 0.7, seed }],
});

export function effectShots(make: Make, night: readonly Layer[], kite: Layer) {
  return { magic: magic(make, night), tape: tape(make), smoke: smoke(make, kite), scraps: scraps(make) };
}

/** A layer that no footage is needed for. */
const sourced = (
  { id }: Make,
  name: string,
  type: string,
  values: Readonly<Record<string, unknown>>,
  change: Partial<Layer> = {},
): Layer => ({
  ...newLayer(id<LayerId>('layer'), name, newSource(type, values), { start: 0, length: 120 }),
  ...change,
});
const again = ({ id }: Make, layer: Layer, passes: Pass[] = []): Layer => ({
  ...structuredClone(layer),
  id: id<LayerId>('layer'),
  passes: [...layer.passes.map((item) => ({ ...structuredClone(item), id: id<PassId>('pass') })), ...passes],
});
const SIZE = { size: [1280, 720] };
const at = (layer: Layer, x: number, y: number, scale = 1): Layer => ({
  ...layer,
  place: { ...layer.place, position: still([x, y]), scale: still([scale, scale]) },
});

/** The lantern lets the captain shine: a flickering glow about him, a flare, embers and mist. */
function magic(make: Make, night: readonly Layer[]): Shot {
  const [glow, rail, captain, deck] = night as [Layer, Layer, Layer, Layer];
  const aura = make.pass('glow', { of: 'all', reach: 110, colour: [1, 0.72, 0.36] });
  aura.values['strength'] = flickering(0.55, 0.3, 7);
  const flare = make.pass('streaks', { threshold: 0.55 });
  flare.values['strength'] = flickering(0.8, 0.35, 4);
  const embers = SWARMS.find(({ name }) => name === 'embers')!.values;
  const around = { ...embers, emitter: 'ellipse', at: [330, 160], wide: 150, high: 230, rate: 40, grain: 11, seed: 3 };
  const mist = { grain: 520, stretch: 3, cover: 0.45, driftX: 60, seed: 5 };
  return make.shot('Lantern magic', [
    sourced(make, 'embers', 'particles', { ...SIZE, ...around }, { blend: 'add' }),
    again(make, glow, [flare]),
    again(make, rail),
    again(make, captain, [aura]),
    sourced(make, 'mist', 'clouds', { ...SIZE, ...mist }, { opacity: still(0.22), blend: 'screen' }),
    again(make, deck),
  ]);
}

/** A tape that the harbour office kept: worn is what was filmed and its bars, not the card that it is shown on. */
function tape(make: Make): Shot {
  const boat = at(
    make.layer('boat', 'boat on tape', 120, { passes: [make.pass('adjust', { saturation: 1.15 })] }),
    0,
    -24,
    0.78,
  );
  const BARS: readonly (readonly [number, number, number])[] = [
    [0.93, 0.9, 0.82],
    [0.9, 0.78, 0.3],
    [0.35, 0.66, 0.62],
    [0.75, 0.32, 0.24],
    [0.22, 0.28, 0.48],
  ];
  const bars = BARS.map((colour, i) =>
    at(
      sourced(make, `bar ${i + 1}`, 'colour', { size: [60, 562], colour }, { blend: 'multiply', opacity: still(0.75) }),
      -469 + 60 * i,
      -24,
    ),
  );
  const worn = sourced(
    make,
    'old tape',
    'adjustment',
    { layers: [boat.id, ...bars.map(({ id }) => id)] },
    {
      passes: [
        make.pass('tape', { jitter: 1.6, bleed: 14, beside: 7, band: 26, hum: 0.16, drops: 7 }),
        make.pass('scan-lines', { apart: 3, dark: 0.22 }),
        make.pass('grain', { amount: 0.05, colour: 1, size: 0.8 }),
      ],
    },
  );
  const label = at(
    sourced(make, 'label', 'title', {
      ...SIZE,
      ...{ text: 'Harbour office, reel 7', font: 'special-elite', height: 26, colour: [0.16, 0.17, 0.2] },
    }),
    0,
    308,
  );
  return make.shot('Tape from the harbour office', [
    label,
    worn,
    ...bars,
    boat,
    sourced(
      make,
      'card',
      'colour',
      { ...SIZE, colour: [0.86, 0.82, 0.72] },
      { passes: [make.pass('grain', { amount: 0.05, size: 1.6, colour: 0, moves: false })] },
    ),
  ]);
}

/** The kite leaves crumbs of itself, which scatter, get soft and fade towards the left. */
function smoke(make: Make, kite: Layer): Shot {
  const after = (pass: Pass): Pass => ({ ...pass, space: 'shot' });
  const fade = sourced(
    make,
    'fade',
    'gradient',
    {
      ...SIZE,
      from: [-520, 0],
      to: [60, 0],
      colours: [
        [0, [0, 0, 0]],
        [1, [1, 1, 1]],
      ],
    },
    { shown: false },
  );
  const far: Value<number> = {
    keys: [
      { at: 0, value: 4, ease: 'smooth' },
      { at: 110, value: 46, ease: 'linear' },
    ],
  };
  const scatter = make.pass('scatter', { size: 13, spread: 1, turn: 160, shrink: 0.7, about: [0, -120] });
  scatter.values['far'] = far as Value<unknown>;
  const trail = again(make, { ...kite, motionBlur: null }, [
    after(make.pass('echo', { copies: 20, spacing: 2, fade: 0.1 })),
    after(scatter),
    after(make.pass('turbulence', { amount: 26, grain: 90 })),
    after(make.pass('blur', { radius: 2.2, edges: 'fade' })),
  ]);
  return make.shot('Kite smoke', [
    again(make, kite),
    {
      ...trail,
      name: 'smoke of the kite',
      matte: { layer: fade.id, by: 'brightness', invert: false },
      opacity: still(0.8),
    },
    fade,
    make.layer('towerStill', 'signal tower', 120),
  ]);
}

const eased = <T>(...keys: [number, T][]): Value<T> => ({
  keys: keys.map(([at, value]) => ({ at, value, ease: 'smooth' as const })),
});

/** A title of paper that grows towards the viewer out of the dark, while scraps of paper blow past in front of it and behind. */
function scraps(make: Make): Shot {
  const blown = SWARMS.find(({ name }) => name === 'scraps')!.values;
  const title = sourced(
    make,
    'title',
    'solid',
    {
      ...SIZE,
      ...{ text: 'Paper\nHarbour', font: 'zilla-slab', letter: 150, leading: 1.45, tracking: 0.03 },
      ...{ bevel: 3, grows: 'towards', tip: 16, frontGlow: 0.1 },
      ...{ frontColour: [0.93, 0.88, 0.76], sideColour: [0.3, 0.48, 0.56] },
    },
    { passes: [make.pass('drop-shadow', {})] },
  );
  Object.assign(title.source.values, {
    deep: eased([0, 2], [24, 20], [96, 300]),
    swing: eased([0, -34], [110, 14]),
    // what comes out of the dark gets its light
    strength1: eased([0, 0], [40, 0.6]),
    strength2: eased([12, 0], [60, 0.36]),
    frontGlow: eased([0, 0], [50, 0.12]),
  });
  return make.shot('Paper scraps', [
    sourced(make, 'scraps in front', 'particles', { ...SIZE, ...blown, rate: 9, grain: 44, speed: 620, seed: 2 }),
    title,
    sourced(
      make,
      'scraps behind',
      'particles',
      { ...SIZE, ...blown, rate: 30, grain: 18, speed: 300, seed: 5 },
      { opacity: still(0.55) },
    ),
    sourced(make, 'dark', 'gradient', {
      ...SIZE,
      form: 'round',
      colours: [
        [0, [0.17, 0.2, 0.24]],
        [1, [0.03, 0.035, 0.05]],
      ],
    }),
  ]);
}
