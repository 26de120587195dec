// A drawing from an SVG file → paths with what they are painted with, as the shapes of layers.
import { JackplaneError } from '../base/errors';
import { hexOf } from '../base/hex';
import type { Vertex } from '../masks/path';
import type { Matrix } from '../picture/matrix';
import { enclosing, subpathsOf } from './svg-path';

/** Display-encoded RGB 0…1. */
type Colour = readonly [number, number, number];
/** What something is filled or outlined with; colours along a way, or one. */
export type Paint = Colour | { colours: readonly (readonly [at: number, Colour])[]; run: number };
export interface PaintedWith {
  fill: Paint | null;
  /** width in the file's own units */
  line: { colour: Colour; width: number; cap: 'flat' | 'round' | 'square'; join: 'mitre' | 'round' | 'bevel' } | null;
  opacity: number;
}
/** An element of a drawing as it stands in the file. */
export interface DrawnElement extends PaintedWith {
  name: string;
  /** SVG path data */
  d: string;
  /** all transforms that apply to it, the outermost first */
  transform: string;
  evenOdd: boolean;
}
export interface DrawnPath {
  name: string;
  path: readonly Vertex[];
  closed: boolean;
  /** it takes away from what encloses it */
  hole: boolean;
}
/** Paths that are painted alike. */
export interface DrawnPiece extends PaintedWith {
  name: string;
  paths: readonly DrawnPath[];
}

/** Most layers that a drawing may become. */
export const MOST_PIECES = 120;

/**
 * The pieces of a drawing in their order, lowest first; neighbours that are painted alike are one.
 * @param fit an SVG transform that brings the file's places to pixels about the middle @param mostPaths of a piece
 * @throws JackplaneError bad-media, unsupported
 */
export function piecesOf(elements: readonly DrawnElement[], fit: string, mostPaths: number): DrawnPiece[] {
  const pieces: (PaintedWith & { name: string; paths: DrawnPath[] })[] = [];
  for (const element of elements) {
    const paths = pathsIn(element, fit);
    if (!paths.length) continue;
    const { fill, opacity, name } = element;
    const thick = scaleOf(`${fit} ${element.transform}`);
    const line = element.line && { ...element.line, width: Math.round(element.line.width * thick * 100) / 100 };
    const last = pieces.at(-1);
    const alike =
      last && JSON.stringify([last.fill, last.line, last.opacity]) === JSON.stringify([fill, line, opacity]);
    // a hole would also be cut into what is there already
    if (alike && opacity === 1 && last.paths.length + paths.length <= mostPaths && !paths.some(({ hole }) => hole))
      last.paths.push(...paths);
    else pieces.push({ name, fill, line, opacity, paths });
    if (paths.length > mostPaths)
      throw tooMuch(`“${name}” has ${paths.length} separate paths, more than the ${mostPaths} that a layer can have`);
  }
  if (pieces.length > MOST_PIECES)
    throw tooMuch(`it has ${pieces.length} parts in different colours, more than ${MOST_PIECES} layers`);
  return pieces;
}
const tooMuch = (what: string): JackplaneError =>
  new JackplaneError('unsupported', `The drawing was not taken: ${what}.`, 'Join its paths, or import it in parts.');

function pathsIn({ d, transform, fill, line, evenOdd, name }: DrawnElement, fit: string): DrawnPath[] {
  if (!fill && !line) return [];
  const found = subpathsOf(d, `${fit} ${transform}`).flatMap((part) => {
    // what is filled is filled up to its beginning
    const path = fill || part.closed ? enclosing(part.path) : null;
    if (path) return { path, closed: true };
    return line && part.path.length > 1 ? { path: part.path, closed: false } : [];
  });
  const first = found.find(({ closed }) => closed);
  return found.map(({ path, closed }, i) => ({
    name: found.length > 1 ? `${name} ${i + 1}` : name,
    path,
    closed,
    hole: closed && path !== first?.path && (evenOdd || Math.sign(areaOf(path)) !== Math.sign(areaOf(first!.path))),
  }));
}

/** Twice the signed area of a path's corners. */
function areaOf(path: readonly Vertex[]): number {
  return path.reduce((sum, v, i) => {
    const next = path[(i + 1) % path.length]!;
    return sum + v[0] * next[1] - next[0] * v[1];
  }, 0);
}

/** How much larger a transform makes things. */
function scaleOf(transform: string): number {
  const [a, b] = subpathsOf('M0 0L100 0L0 100Z', transform)[0]!.path.reduce<[number[], number[]]>(
    ([xs, ys], v) => [
      [...xs, v[0]],
      [...ys, v[1]],
    ],
    [[], []],
  );
  const area = (a[1]! - a[0]!) * (b[2]! - b[0]!) - (a[2]! - a[0]!) * (b[1]! - b[0]!);
  return Math.sqrt(Math.abs(area)) / 100;
}

/** A figure to be written, at a place of its own. */
export interface WrittenFigure extends PaintedWith {
  name: string;
  d: string;
  evenOdd: boolean;
  matrix: Matrix;
}
const LINE_CAPS = { flat: 'butt', round: 'round', square: 'square' } as const;
const LINE_JOINS = { mitre: 'miter', round: 'round', bevel: 'bevel' } as const;
const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const UNMOVED = [1, 0, 0, 1, 0, 0];
const short = (v: number): string => String(Math.round(v * 1e4) / 1e4 + 0);

/** @param figures the lowest first, their places in pixels about the middle of the drawing @returns an SVG file */
export function writeDrawing({ w, h }: { w: number; h: number }, figures: readonly WrittenFigure[]): string {
  const ramps: string[] = [];
  const paint = (fill: Paint | null): string => {
    if (!fill) return 'none';
    if (!('run' in fill)) return hexOf(fill);
    const turn = (fill.run * Math.PI) / 180;
    const end = (way: number): string =>
      `x${way > 0 ? 2 : 1}="${short(0.5 + (way * Math.cos(turn)) / 2)}" y${way > 0 ? 2 : 1}="${short(0.5 + (way * Math.sin(turn)) / 2)}"`;
    const stops = fill.colours.map(([at, colour]) => `<stop offset="${short(at)}" stop-color="${hexOf(colour)}"/>`);
    ramps.push(`<linearGradient id="ramp${ramps.length}" ${end(-1)} ${end(1)}>${stops.join('')}</linearGradient>`);
    return `url(#ramp${ramps.length - 1})`;
  };
  const paths = figures.map(({ name, d, fill, line, opacity, evenOdd, matrix }) => {
    const stroke = line
      ? ` stroke="${hexOf(line.colour)}" stroke-width="${short(line.width)}" stroke-linecap="${LINE_CAPS[line.cap]}" stroke-linejoin="${LINE_JOINS[line.join]}"`
      : '';
    const more = `${opacity < 1 ? ` opacity="${short(opacity)}"` : ''}${evenOdd ? ' fill-rule="evenodd"' : ''}`;
    const moved = matrix.some((v, i) => v !== UNMOVED[i]) ? ` transform="matrix(${matrix.map(short).join(' ')})"` : '';
    return `  <path${moved} fill="${paint(fill)}"${stroke}${more} d="${d}"><title>${escaped(name)}</title></path>`;
  });
  const defs = ramps.length ? [`  <defs>${ramps.join('')}</defs>`] : [];
  const box = `width="${w}" height="${h}" viewBox="${-w / 2} ${-h / 2} ${w} ${h}"`;
  return [`<svg xmlns="http://www.w3.org/2000/svg" ${box}>`, ...defs, ...paths, '</svg>', ''].join('\n');
}
