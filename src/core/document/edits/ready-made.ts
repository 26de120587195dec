// Several layers that belong together, ready made: put into a shot in one step, ordinary layers from then on.
import type { Draft } from 'immer';
import { still, type Value } from '../../base/value';
import { firstValues } from '../../params/registry';
import { transitionOf } from '../../transitions/registry';
import type { Edit } from '../edit';
import { shotIn } from '../find';
import type { Layer, LayerId, Project, Shot } from '../schema';
import { ARRIVALS, writeArrival } from './arrive';
import { writeFades } from './ends';
import { newLayer, newSource } from './layers';
import { namedApart } from './time';

type Pair = [number, number];
type Colour = [number, number, number];
const INK: Colour = [0.09, 0.12, 0.17];
const PAPER: Colour = [0.95, 0.93, 0.87];
const BRASS: Colour = [0.86, 0.62, 0.3];

/** What the layers of one are made with. */
interface Making {
  shot: Shot;
  fresh: () => string;
  /** how many times larger than 720 rows the shot is */
  k: number;
}
/** Further things of a layer. */
interface With {
  at?: Pair;
  /** frames after the others that it begins */
  late?: number;
  begins?: readonly [transition: string | null, frames: number, values?: Readonly<Record<string, unknown>>];
  ends?: readonly [transition: string | null, frames: number];
  /** it goes along with this one; its place then counts from there */
  on?: Layer;
}

function made(
  { shot, fresh }: Making,
  type: string,
  name: string,
  values: Readonly<Record<string, unknown>>,
  { at = [0, 0], late = 0, begins, ends, on }: With = {},
): Layer {
  const source = newSource(type, { size: [shot.width, shot.height], ...values });
  const start = Math.min(late, shot.length - 1);
  const layer = newLayer(fresh() as LayerId, name, source, { start, length: shot.length - start });
  layer.place.position = still(at.map((v) => Math.round(v)) as Pair);
  if (on) layer.parent = { layer: on.id, rotation: true, scale: true };
  const transition = (which: string | null | undefined, own: Readonly<Record<string, unknown>> = {}) => {
    const declared = which ? transitionOf(which)! : null;
    const changed = Object.fromEntries(Object.entries(own).map(([key, value]) => [key, still(value)]));
    return declared ? { type: declared.type, values: { ...firstValues(declared.params), ...changed } } : undefined;
  };
  const [first, last] = [transition(begins?.[0], begins?.[2]), transition(ends?.[0])];
  layer.ends = { ...(first && { start: first }), ...(last && { end: last }) };
  const most = Math.max(0, Math.floor((layer.span.length - 1) / 2));
  writeFades(layer as Draft<Layer>, { in: Math.min(most, begins?.[1] ?? 0), out: Math.min(most, ends?.[1] ?? 0) });
  return layer;
}
const words = (making: Making, text: string, values: Readonly<Record<string, unknown>>, more: With = {}): Layer =>
  made(making, 'title', text.split('\n')[0]!.toLowerCase(), { text, colour: PAPER, ...values }, more);
/** Frames in a share of a second. */
const beat = ({ shot }: Making, seconds: number): number =>
  Math.max(1, Math.round((shot.rate.num / shot.rate.den) * seconds));
function arriving(layer: Layer, way: string, frames: number): Layer {
  writeArrival(
    layer as Draft<Layer>,
    ARRIVALS.find(({ name }) => name === way)!,
    frames,
  );
  return layer;
}
const keyed = <T>(...keys: readonly [at: number, value: T][]): Value<T> => ({
  keys: keys.map(([at, value]) => ({ at, value, ease: 'linear' as const })),
});

export interface ReadyMade {
  name: string;
  title: string;
  words: string;
  help: string;
  /** top layer first */
  layers(making: Making): Layer[];
}
export const READY_MADE: readonly ReadyMade[] = [
  {
    name: 'lower-third',
    title: 'Lower third',
    words: 'name strip ; who is speaking ; caption bar',
    help: 'A bar that wipes in at the lower left, with a name and a line below it.',
    layers(m) {
      const [w, h] = [520 * m.k, 104 * m.k];
      const bar = made(
        m,
        'shape',
        'bar',
        { form: 'rectangle', width: w, height: h, radius: 8 * m.k, colour: INK, line: 0 },
        {
          at: [-m.shot.width / 2 + w / 2 + 64 * m.k, m.shot.height / 2 - h / 2 - 72 * m.k],
          begins: ['wipe', beat(m, 0.5)],
          ends: [null, beat(m, 0.4)],
        },
      );
      const text = words(
        m,
        'Name\nwhat they do',
        { height: 26 * m.k, align: 'left', leading: 1.7, wrap: w - 2 * 28 * m.k },
        { on: bar, late: beat(m, 0.25), ends: [null, beat(m, 0.4)] },
      );
      return [arriving(text, 'lines', beat(m, 0.6)), bar];
    },
  },
  {
    name: 'name-card',
    title: 'Name card',
    words: 'card with a border ; label ; sign',
    help: 'A card with an edge and a line of text on it.',
    layers(m) {
      const card = made(
        m,
        'shape',
        'card',
        {
          form: 'rectangle',
          width: 560 * m.k,
          height: 180 * m.k,
          radius: 14 * m.k,
          colour: PAPER,
          line: 5 * m.k,
          lineColour: INK,
          lies: 'inside',
        },
        { begins: ['zoom', beat(m, 0.4)], ends: [null, beat(m, 0.4)] },
      );
      const text = words(
        m,
        'Name',
        { height: 56 * m.k, colour: INK },
        { on: card, late: beat(m, 0.2), begins: [null, beat(m, 0.3)], ends: [null, beat(m, 0.4)] },
      );
      return [text, card];
    },
  },
  {
    name: 'badge',
    title: 'Number badge',
    words: 'number cut out ; counter ; sticker ; step',
    help: 'A disc with a number cut out of it, so that what lies below is seen through the number.',
    layers(m) {
      const number = words(m, '1', { height: 90 * m.k });
      const disc = made(
        m,
        'shape',
        'badge',
        { form: 'ellipse', width: 200 * m.k, height: 200 * m.k, colour: BRASS, line: 0 },
        { begins: ['zoom', beat(m, 0.3)], ends: [null, beat(m, 0.3)] },
      );
      return [
        { ...number, shown: false },
        { ...disc, matte: { layer: number.id, by: 'alpha', invert: true } },
      ];
    },
  },
  {
    name: 'counter',
    title: 'Counter',
    words: 'number that runs ; count up ; countdown ; timer ; clock ; date ; odometer',
    help: 'A number that runs from 0 to 100 through the shot. Its dials make it a time or a date.',
    layers(m) {
      const number = words(m, '#', { height: 120 * m.k, counter: 'number' });
      number.source.values['count'] = keyed([0, 0], [Math.max(1, m.shot.length - 1), 100]);
      number.name = 'counter';
      return [number];
    },
  },
  {
    name: 'letterbox',
    title: 'Letterbox opening',
    words: 'black bars ; cinema bars ; widescreen',
    help: 'Two black bars that come in from above and below.',
    layers(m) {
      const h = Math.round(m.shot.height * 0.12);
      const bar = (name: string, side: 'top' | 'bottom') =>
        made(
          m,
          'shape',
          name,
          { form: 'rectangle', width: m.shot.width, height: h, colour: [0, 0, 0], line: 0 },
          { at: [0, ((side === 'top' ? -1 : 1) * (m.shot.height - h)) / 2], begins: ['slide', beat(m, 1), { side }] },
        );
      return [bar('upper bar', 'top'), bar('lower bar', 'bottom')];
    },
  },
  {
    name: 'underline',
    title: 'Line under a word',
    words: 'underline ; draw a line below ; emphasise ; write on',
    help: 'A word and a line that is drawn below it.',
    layers(m) {
      const word = words(m, 'Word', { height: 80 * m.k }, { begins: [null, beat(m, 0.3)] });
      const line = made(
        m,
        'shape',
        'line',
        { form: 'line', width: 320 * m.k, line: 9 * m.k, lineColour: BRASS, taper: 0.15 },
        { at: [0, 70 * m.k], on: word, late: beat(m, 0.3) },
      );
      line.source.values['to'] = keyed([0, 0], [beat(m, 0.6), 1]);
      return [line, word];
    },
  },
  {
    name: 'gates',
    title: 'Gates closing',
    words: 'doors ; curtain ; close over the picture ; end',
    help: 'Two halves of a board that close over the picture in the last second of the shot.',
    layers(m) {
      const late = Math.max(0, m.shot.length - beat(m, 1.5));
      return [
        made(
          m,
          'shape',
          'gates',
          {
            form: 'rectangle',
            width: m.shot.width,
            height: m.shot.height,
            fill: 'ramp',
            run: 0,
            colours: [
              [0, [0.3, 0.17, 0.1]],
              [0.5, [0.46, 0.28, 0.16]],
              [1, [0.3, 0.17, 0.1]],
            ],
            line: 0,
          },
          { late, begins: ['gates', beat(m, 1)] },
        ),
      ];
    },
  },
  {
    name: 'credits',
    title: 'Credits',
    words: 'rolling text ; roll ; end titles ; scroll up ; names',
    help: 'A long text that rolls up through the shot by whole pixels a frame, so that it does not shimmer.',
    layers(m) {
      const text = 'Paper and card\nyour name\n\nLight\nyour name\n\nSound\nyour name\n\nThank you';
      const [height, leading] = [34 * m.k, 1.9];
      const rows = text.split('\n').length;
      const tall = Math.ceil((1 + (rows - 1) * leading) * height);
      const roll = words(m, text, { height, leading, size: [m.shot.width, tall + Math.ceil(height)] });
      const way = m.shot.height + tall + height;
      const frames = Math.max(1, m.shot.length - 1);
      const speed = Math.max(1, Math.ceil(way / frames));
      const from = Math.ceil(way / 2);
      roll.name = 'credits';
      roll.place.position = keyed<Pair>([0, [0, from]], [frames, [0, from - speed * frames]]);
      return [roll];
    },
  },
  {
    name: 'end-card',
    title: 'End card',
    words: 'closing card ; the end ; last picture',
    help: 'A plain card with a title and a line, for the end.',
    layers(m) {
      const late = Math.max(0, m.shot.length - beat(m, 3));
      const ground = made(m, 'colour', 'end card', { colour: INK }, { late, begins: [null, beat(m, 0.5)] });
      const title = words(m, 'The end', { height: 84 * m.k }, { late: late + beat(m, 0.4) });
      const line = made(
        m,
        'shape',
        'line',
        { form: 'line', width: 260 * m.k, line: 5 * m.k, lineColour: BRASS },
        { at: [0, 84 * m.k], late: late + beat(m, 0.8) },
      );
      line.source.values['to'] = keyed([0, 0], [beat(m, 0.6), 1]);
      return [arriving(title, 'words', beat(m, 0.7)), line, ground];
    },
  },
];

/** Puts the layers of something ready made on top of a shot. */
export function addReadyMade(project: Project, shotId: Shot['id'], ready: ReadyMade, fresh: () => string): Edit {
  const shot = shotIn(project, shotId);
  const layers = ready.layers({ shot, fresh, k: shot.height / 720 });
  return {
    name: `Add ${ready.title.toLowerCase()}`,
    apply: (draft) => {
      const own = shotIn(draft as Project, shotId);
      own.layers.unshift(...namedApart(layers, own.layers));
    },
  };
}
