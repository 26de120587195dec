import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { font } from '../params/font';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { size } from '../params/size';
import { text } from '../params/text';
import { shifted } from '../masks/path';
import { fillOnto } from '../masks/raster';
import { arriving, type Arrival } from '../text/arrival';
import { countedText, type Counting } from '../text/counter';
import type { LineStyle } from '../text/fonts';
import { setLines, type Setting } from '../text/layout';
import { boundsOfPieces, drawPiece, UNBLURRED } from '../text/pieces';
import { clearPicture } from './clear';
import { defineSource } from './define';

const linesIn = (v: { text: string }): string[] => countedText(v.text, v as unknown as Counting).split(/\r?\n/);

const ARRIVAL = 'Arrival';
const arrival = (label: string, initial: number, help: string) =>
  number({ label, unit: '%', default: initial, min: 0, max: 1, slider: [0, 1], help, group: ARRIVAL });
const begins = (label: string, initial: number, help: string) =>
  number({ label, unit: 'px', default: initial, min: -16384, max: 16384, slider: [-400, 400], help, group: ARRIVAL });

const COUNTER = 'Counter';
const digits = (label: string, initial: number, help: string, is: readonly string[]) =>
  number({
    label,
    unit: '',
    default: initial,
    min: 0,
    max: 9,
    slider: [0, 6],
    help,
    group: COUNTER,
    when: { choice: 'counter', is },
  });

/** Text. */
export const title = defineSource({
  type: 'title',
  title: 'Title',
  words: [
    'text',
    'letters',
    'words',
    'caption',
    'subtitle',
    'lower third',
    'name',
    'heading',
    'credits',
    'type',
    'typing',
  ],
  help: 'Text, drawn sharp at any size. Outline and Drop shadow set it off; keyframes of Shown type it letter by letter. Relatives: text masks, which cut a picture by letters.',
  params: {
    text: text({ label: 'Text', default: 'Title', most: 2000, help: 'What it says; Enter begins a new line.' }),
    colour: colour({ label: 'Colour', default: [0.96, 0.95, 0.92], help: 'The colour of the letters.' }),
    font: font({
      label: 'Font',
      default: 'archivo',
      help: 'What the letters look like: a font that ships with Jackplane, or one from a file.',
    }),
    weight: choice({
      label: 'Weight',
      default: 'bold',
      options: [
        { value: 'regular', label: 'regular' },
        { value: 'bold', label: 'bold' },
      ],
      help: 'How heavy they are, in fonts that have both.',
    }),
    height: number({
      label: 'Letter height',
      unit: 'px',
      default: 96,
      min: 1,
      max: 4000,
      slider: [10, 400],
      help: 'Height of a capital letter.',
    }),
    align: choice({
      label: 'Lines',
      default: 'centre',
      options: [
        { value: 'left', label: 'begin together' },
        { value: 'centre', label: 'are centred' },
        { value: 'right', label: 'end together' },
      ],
      help: 'How several lines stand to each other.',
    }),
    tracking: number({
      label: 'Apart',
      unit: '%',
      default: 0,
      min: -0.5,
      max: 4,
      slider: [-0.2, 1],
      help: 'Space added between letters, in per cent of a capital’s height.',
    }),
    leading: number({
      label: 'Line to line',
      unit: '%',
      default: 1.6,
      min: 0,
      max: 10,
      slider: [1, 3],
      help: 'From one line to the next, in per cent of a capital’s height.',
    }),
    wrap: number({
      label: 'Rows up to',
      unit: 'px',
      default: 0,
      min: 0,
      max: 16384,
      slider: [0, 1920],
      help: 'Lines that are longer go on in the next row, and rows begin or end at the edges of this width; 0 for lines of any length.',
    }),
    shown: number({
      label: 'Shown',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How many of the letters are there, from the first on. Keyframes of it type the text.',
    }),
    done: arrival(
      'Have arrived',
      1,
      'How far the text has come: at 0 none of it, at 100 all. Keyframes of it let it arrive, and leave.',
    ),
    by: choice({
      label: 'One by one',
      default: 'letter',
      options: [
        { value: 'letter', label: 'letters' },
        { value: 'word', label: 'words' },
        { value: 'line', label: 'lines' },
      ],
      help: 'What comes one after the other.',
      group: ARRIVAL,
    }),
    order: choice({
      label: 'First come',
      default: 'forwards',
      options: [
        { value: 'forwards', label: 'the first' },
        { value: 'backwards', label: 'the last' },
        { value: 'middle', label: 'those in the middle' },
        { value: 'lot', label: 'some, by lot' },
      ],
      help: 'In which order they come.',
      group: ARRIVAL,
    }),
    overlap: arrival('Together', 0.5, 'How long each takes, as a share of the whole: at 100 all come together.'),
    x: begins('Sideways', 0, 'How far from its place each begins: negative from the left.'),
    y: begins('Upright', 0, 'How far from its place each begins: positive from below.'),
    startSize: number({
      label: 'Begin at size',
      unit: '%',
      default: 1,
      min: 0,
      max: 20,
      slider: [0, 4],
      help: 'The size that each begins with.',
      group: ARRIVAL,
    }),
    turn: angle({ label: 'Begin turned', default: 0, help: 'How far each is turned at first.', group: ARRIVAL }),
    opacity: arrival('Begin at opacity', 0, 'How much of each is seen at first.'),
    startBlur: number({
      label: 'Begin blurred',
      unit: 'px',
      default: 0,
      min: 0,
      max: 300,
      slider: [0, 40],
      help: 'How blurred each is at first.',
      group: ARRIVAL,
    }),
    startApart: number({
      label: 'Begin apart',
      unit: '%',
      default: 0,
      min: -1,
      max: 20,
      slider: [-0.5, 3],
      help: 'Space added between letters at first, in per cent of a capital’s height.',
      group: ARRIVAL,
    }),
    tinted: arrival('Begin coloured', 0, 'How much of another colour each has at first.'),
    startColour: colour({
      label: 'Colour at first',
      default: [1, 0.72, 0.3],
      help: 'The colour that each begins with.',
      group: ARRIVAL,
    }),
    seed: seed({
      label: 'Seed',
      default: 1,
      help: 'Another number is another lot.',
      group: ARRIVAL,
      when: { choice: 'order', is: 'lot' },
    }),
    counter: choice({
      label: 'Counts',
      default: 'none',
      options: [
        { value: 'none', label: 'nothing' },
        { value: 'number', label: 'a number' },
        { value: 'time', label: 'a time' },
        { value: 'date', label: 'a date' },
      ],
      help: 'What stands in the text wherever it has a #.',
      group: COUNTER,
    }),
    count: number({
      label: 'Count',
      unit: '',
      default: 0,
      min: -1e6,
      max: 1e6,
      slider: [0, 100],
      help: 'The number; the seconds of a time; how many days after the first day. Keyframes of it let it run.',
      group: COUNTER,
      when: { choice: 'counter', is: ['number', 'time', 'date'] },
    }),
    digits: digits('After the point', 0, 'How many digits it has after the point.', ['number', 'time']),
    least: digits('At least', 1, 'How many digits it has before the point, at least; noughts fill it up.', ['number']),
    day: text({
      label: 'First day',
      default: '2026-01-01',
      most: 10,
      help: 'The day that is counted from: year, month and day.',
      group: COUNTER,
      when: { choice: 'counter', is: 'date' },
    }),
    size: size({
      label: 'Size',
      default: [1280, 720],
      help: 'How large the picture is that it stands in the middle of.',
    }),
  },
  timed: false,
  lines: (v) => linesIn(v).map((line) => [line, styleOf(v)]),
  draw(v, tools) {
    const { kernels, arena, line } = tools;
    const { w, h } = tools.size;
    const texts = linesIn(v);
    const letters = setLines(
      texts.map((one) => line(one, styleOf(v))),
      texts,
      { ...(v as Setting), middle: [w / 2, h / 2] },
    );
    const pieces = arriving(letters, {
      ...(v as unknown as Arrival),
      size: v.startSize,
      blur: v.startBlur,
      apart: v.startApart * v.height,
    });
    const picture = clearPicture(tools, boundsOfPieces(pieces));
    const alike = pieces.filter(({ come, blur }) => blur < UNBLURRED && (come === 1 || v.tinted === 0));
    if (alike.length)
      arena.scratch(picture.pixels * 4 + 16, (at) => {
        const { x, y, w: wide, h: high } = picture.rect;
        const plane = arena.floats(at, picture.pixels).fill(0);
        for (const { rings, opacity } of alike) fillOnto(plane, shifted(rings, -x, -y), wide, high, opacity);
        kernels.overPlane(picture.at, at, picture.pixels, ...v.colour, 0);
      });
    for (const piece of pieces.filter((one) => !alike.includes(one))) {
      const tint = v.tinted * (1 - piece.come);
      drawPiece(
        picture,
        piece,
        v.colour.map((own, c) => own + (v.startColour[c]! - own) * tint) as [number, number, number],
        tools,
      );
    }
    return picture;
  },
});
const styleOf = ({
  font: own,
  weight,
  tracking,
}: Pick<LineStyle, 'font' | 'tracking'> & { weight: string }): LineStyle => ({
  font: own,
  weight: weight as LineStyle['weight'],
  tracking,
});
