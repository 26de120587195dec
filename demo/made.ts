// Shots of the demo that are made of titles and shapes: who keeps the light, the harbour's log, and the credits.
import { still, type Value } from '../src/core/base/value';
import { perform } from '../src/core/document/edit';
import { ARRIVALS, letArrive } from '../src/core/document/edits/arrive';
import { newLayer, newSource } from '../src/core/document/edits/layers';
import { newProject } from '../src/core/document/edits/project';
import { addReadyMade, READY_MADE } from '../src/core/document/edits/ready-made';
import type { Layer, LayerId, ProjectId, Shot } from '../src/core/document/schema';

type Pair = [number, number];
type Colour = [number, number, number];
const INK: Colour = [0.16, 0.19, 0.27];
const PAGE: Colour = [0.93, 0.89, 0.79];
const RUST: Colour = [0.67, 0.27, 0.16];
const WRITING = { font: 'caveat', weight: 'bold', colour: INK, align: 'left' };

const over = <T>(from: number, to: number, first: T, last: T): Value<T> => ({
  keys: [
    { at: from, value: first, ease: 'smooth' },
    { at: to, value: last, ease: 'linear' },
  ],
});

/** Makes a shot of layers, the top one first. */
type MakeShot = (name: string, layers: Layer[]) => Shot;
/** Gives new ids. */
type Fresh = () => string;

/** A project with nothing but a shot, for edits of it. */
const alone = (shot: Shot) => ({
  ...newProject('demo' as ProjectId, 'Demo', '2026-01-12T18:30:00.000Z'),
  shots: [shot],
});
/** @param says what stands in place of the words that it comes with */
function withReadyMade(shot: Shot, name: string, says: Readonly<Record<string, string>>, fresh: Fresh): Shot {
  const base = alone(shot);
  const ready = READY_MADE.find((item) => item.name === name)!;
  const [done] = perform(base, addReadyMade(base, shot.id, ready, fresh))!.project.shots;
  const worded = (layer: Layer): Layer => {
    const now = layer.source.values['text'];
    const text = now && 'still' in now ? says[String(now.still)] : undefined;
    return text ? valued(layer, 'text', still(text)) : layer;
  };
  return { ...done!, layers: done!.layers.map(worded) };
}
/** Lets a title of a shot arrive, letter by letter from below. */
function arrived(shot: Shot, name: string): Shot {
  const base = alone(shot);
  const layer = shot.layers.find((item) => item.name === name)!.id;
  const rise = ARRIVALS.find((way) => way.name === 'rise')!;
  return perform(base, letArrive(base, { shot: shot.id, layer }, rise, 20))!.project.shots[0]!;
}
const valued = (layer: Layer, name: string, value: Value<unknown>): Layer => ({
  ...layer,
  source: { ...layer.source, values: { ...layer.source.values, [name]: value } },
});
function made(fresh: Fresh, type: string, name: string, at: Pair, values: Readonly<Record<string, unknown>>): Layer {
  const source = newSource(type, { size: [1280, 720], ...values });
  const layer = newLayer(fresh() as LayerId, name, source, { start: 0, length: 120 });
  layer.place.position = still(at);
  return layer;
}

/** Who keeps the signal tower, with the tower's number. */
function keeper(shot: MakeShot, tower: Layer, fresh: Fresh): Shot {
  const says = { 'Name\nwhat they do': 'Ottilie Reed\nkeeps the signal tower' };
  const named = withReadyMade(shot('Keeper of the light', [tower]), 'lower-third', says, fresh);
  const badged = withReadyMade(named, 'badge', { 1: '7' }, fresh);
  const moved = (layer: Layer): Layer => ({
    ...layer,
    place: { ...layer.place, position: still([470, -210] as Pair) },
  });
  const layers = badged.layers.map((layer) => (['badge', '1'].includes(layer.name) ? moved(layer) : layer));
  return { ...badged, layers };
}

const SHIPS = [
  ['Paper Gull', '4:10'],
  ['Lantern Fish', '5:35'],
  ['Night ferry', '9:20'],
  ['Copper Kettle', '9:55'],
] as const;
const [TOP, ROW] = [-96, 84];
/** A ship and its hour; the last one is being written. */
function entry(fresh: Fresh, i: number): Layer[] {
  const [ship, time] = SHIPS[i]!;
  const y = TOP + i * ROW;
  const name = made(fresh, 'title', ship, [-250, y], { ...WRITING, text: ship, height: 34, wrap: 420 });
  const hour = { ...WRITING, text: time, height: 30, align: 'right', wrap: 200 };
  const when = made(fresh, 'title', `at ${time}`, [330, y], hour);
  if (i < SHIPS.length - 1) return [name, when];
  return [valued(name, 'shown', over(40, 76, 0, 1)), valued(when, 'shown', over(82, 96, 0, 1))];
}
const TABLE = [
  [0, [0.2, 0.13, 0.1]],
  [1, [0.11, 0.08, 0.08]],
];
/** A page of the harbour's log, in which a ship's name is underlined and an entry written. */
function log(shot: MakeShot, fresh: Fresh): Shot {
  const line = { form: 'line', width: 210, line: 6, lineColour: RUST, taper: 0.2 };
  const underline = made(fresh, 'shape', 'line under the ferry', [-352, TOP + 2 * ROW + 34], line);
  const heading = { ...WRITING, align: 'centre', font: 'zilla-slab', text: 'Harbour log', height: 40 };
  const page = {
    form: 'rectangle',
    width: 1060,
    height: 640,
    radius: 10,
    fill: 'ramp',
    run: 70,
    colours: [
      [0, PAGE],
      [1, [0.85, 0.79, 0.66]],
    ],
    line: 10,
    lineColour: INK,
    lies: 'inside',
  };
  const layers = [
    valued(underline, 'to', over(8, 28, 0, 1)),
    ...SHIPS.flatMap((_, i) => entry(fresh, i)),
    made(fresh, 'shape', 'rule', [0, -170], { form: 'line', width: 900, line: 3, lineColour: INK }),
    made(fresh, 'title', 'heading', [0, -232], heading),
    made(fresh, 'shape', 'page', [0, 0], page),
    made(fresh, 'gradient', 'table', [0, 0], { colours: TABLE }),
  ];
  return arrived(shot('Harbour log', layers), 'heading');
}

/** The page of the log turns over on its left edge, as one thing, and an empty one lies below. */
function turning(shot: MakeShot, fresh: Fresh): Shot[] {
  const whole = log(shot, fresh);
  const table = whole.layers.at(-1)!;
  const sheet = whole.layers.at(-2)!;
  const page = { ...whole, name: 'page of the log', background: null, layers: whole.layers.slice(0, -1) };
  const length = 168;
  const lying = (layer: Layer, change: Partial<Layer> = {}): Layer => ({
    ...layer,
    id: fresh() as LayerId,
    span: { start: 0, length },
    ...change,
  });
  const hinged = (layer: Layer, name: string, side: 'front' | 'back'): Layer =>
    lying(layer, {
      name,
      place: {
        ...layer.place,
        position: still([-530, 0] as Pair),
        anchor: still([-530, 0] as Pair),
        tilt: over(104, 156, [0, 0] as Pair, [0, -172] as Pair),
        side,
      },
      motionBlur: { shutter: 0.5, samples: 24 },
    });
  const group = newLayer(fresh() as LayerId, 'leaf', newSource('group', { shot: page.id }), { start: 0, length });
  const outer = shot('Turning the page', [
    hinged(group, 'leaf', 'front'),
    hinged(sheet, 'back of the leaf', 'back'),
    lying(sheet, { name: 'next page' }),
    lying(table),
  ]);
  outer.length = length;
  return [outer, { ...page, within: outer.id }];
}

const [WIDE, TALL] = [250, 340];
const WOOD: Colour = [0.36, 0.22, 0.13];
/** What lies on one of three cards, turned with it about its hinge: 0 for the one in the middle, which stands still. */
function card(fresh: Fresh, side: -1 | 0 | 1, name: string, sign: readonly [type: string, values: object]): Layer[] {
  const form = { form: 'rectangle', width: WIDE, height: TALL, radius: 12 };
  const front = made(fresh, 'shape', `${name} card`, [0, 0], {
    ...form,
    colour: PAGE,
    line: 8,
    lineColour: RUST,
    lies: 'inside',
  });
  const back = made(fresh, 'shape', `back of ${name}`, [0, 0], { ...form, colour: WOOD, line: 0 });
  const letter = made(fresh, sign[0], name, [0, 0], { ...sign[1] });
  const turned = over(side < 0 ? 8 : 24, side < 0 ? 34 : 50, [0, side * 180] as Pair, [0, 0] as Pair);
  const hinged = (layer: Layer, seen: 'front' | 'back'): Layer => ({
    ...layer,
    place: {
      ...layer.place,
      position: still([(side * WIDE) / 2, 0] as Pair),
      anchor: still([(-side * WIDE) / 2, 0] as Pair),
      tilt: turned,
      side: seen,
    },
  });
  return side ? [hinged(letter, 'front'), hinged(front, 'front'), hinged(back, 'back')] : [letter, front];
}
/** A sign of three cards that unfold together, seen from one point. */
function sign(shot: MakeShot, fresh: Fresh): Shot {
  const letter = (text: string) => ['title', { text, font: 'zilla-slab', height: 150, colour: INK }] as const;
  const star = { form: 'star', width: 150, height: 150, corners: 8, inner: 0.45, colour: RUST, line: 0 };
  const dusk = [
    [0, [0.2, 0.25, 0.36]],
    [1, [0.08, 0.1, 0.16]],
  ];
  const layers = [
    ...card(fresh, 1, 'H', letter('H')),
    ...card(fresh, -1, 'P', letter('P')),
    ...card(fresh, 0, 'star', ['shape', star]),
    made(fresh, 'gradient', 'dusk', [0, 0], { colours: dusk }),
  ];
  return { ...shot('Harbour sign', layers), vanishing: [0, -60] };
}

/** The names, rolling over a dusk. */
function credits(shot: MakeShot, fresh: Fresh): Shot {
  const colours = [
    [0, [0.07, 0.09, 0.17]],
    [0.65, [0.2, 0.22, 0.36]],
    [1, [0.62, 0.38, 0.3]],
  ];
  const says = {
    'Paper and card\nyour name\n\nLight\nyour name\n\nSound\nyour name\n\nThank you':
      'Paper Harbour\n\nPaper and card\nOttilie Reed\n\nLanterns\nBram Quill\n\nThe captain\nhimself\n\nGood night',
  };
  const dusk = made(fresh, 'gradient', 'dusk', [0, 0], { colours });
  return withReadyMade(shot('Credits', [dusk]), 'credits', says, fresh);
}

/** @param tower a layer of the stock */
export const madeShots = (shot: MakeShot, tower: Layer, fresh: Fresh): Shot[] => [
  keeper(shot, tower, fresh),
  log(shot, fresh),
  ...turning(shot, fresh),
  sign(shot, fresh),
  credits(shot, fresh),
];
