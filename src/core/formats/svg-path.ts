import SvgPath from 'svgpath';
import { JackplaneError } from '../base/errors';
import { MOST_VERTICES } from '../document/mask';
import { isSmooth, withVertex, type Vertex } from '../masks/path';

const hundredths = (v: number): string => String(Math.round(v * 100) / 100 + 0);

/** A path as SVG path data. Places keep their coordinates. @param closed whether it goes back to its beginning */
export function pathData(path: readonly Vertex[], closed = true): string {
  if (!path.length) return '';
  const to = (x: number, y: number) => `${hundredths(x)} ${hundredths(y)}`;
  const pieces = path.slice(0, closed ? undefined : -1).map((v, i) => {
    const next = path[(i + 1) % path.length]!;
    const straight = v[4] === 0 && v[5] === 0 && next[2] === 0 && next[3] === 0;
    return straight
      ? `L${to(next[0], next[1])}`
      : `C${to(v[0] + v[4], v[1] + v[5])} ${to(next[0] + next[2], next[1] + next[3])} ${to(next[0], next[1])}`;
  });
  return `M${to(path[0]![0], path[0]![1])}${pieces.join('')}${closed ? 'Z' : ''}`;
}

type Open = [number, number, number, number, number, number, number];
/** A part of path data that is drawn without lifting the pen. */
export interface Subpath {
  path: Vertex[];
  closed: boolean;
}
/**
 * The parts of SVG path data: curves, lines and arcs of every kind, absolute or relative.
 * @param transform an SVG transform list that applies to it @throws JackplaneError bad-media
 */
export function subpathsOf(data: string, transform = ''): Subpath[] {
  const bad = (what: string) =>
    new JackplaneError('bad-media', `The SVG path ${what}.`, 'Export the drawing as plain paths and import it again.');
  let parsed;
  try {
    parsed = new SvgPath(data).transform(transform).abs().unshort().unarc();
  } catch {
    throw bad('could not be read');
  }
  const paths: Open[][] = [];
  const ends = new Set<Open[]>();
  let [x, y] = [0, 0];
  parsed.iterate((command) => {
    const [kind, ...n] = command as [string, ...number[]];
    const path = paths.at(-1);
    const put = (inX: number, inY: number, endX: number, endY: number) =>
      void path?.push([endX, endY, inX - endX, inY - endY, 0, 0, 0]);
    const leave = (outX: number, outY: number) => {
      const last = path?.at(-1);
      if (last) [last[4], last[5]] = [outX - x, outY - y];
    };
    if (kind === 'M') paths.push([[n[0]!, n[1]!, 0, 0, 0, 0, 0]]);
    else if (kind === 'L') put(n[0]!, n[1]!, n[0]!, n[1]!);
    else if (kind === 'H') put(n[0]!, y, n[0]!, y);
    else if (kind === 'V') put(x, n[0]!, x, n[0]!);
    else if (kind === 'C') {
      leave(n[0]!, n[1]!);
      put(n[2]!, n[3]!, n[4]!, n[5]!);
    } else if (kind === 'Q') {
      leave(x + ((n[0]! - x) * 2) / 3, y + ((n[1]! - y) * 2) / 3);
      put(n[2]! + ((n[0]! - n[2]!) * 2) / 3, n[3]! + ((n[1]! - n[3]!) * 2) / 3, n[2]!, n[3]!);
    }
    if (kind === 'H') x = n[0]!;
    else if (kind === 'V') y = n[0]!;
    else if (kind !== 'Z') [x, y] = n.slice(-2) as [number, number];
    else {
      [x, y] = [path?.[0]?.[0] ?? x, path?.[0]?.[1] ?? y];
      if (path) ends.add(path);
    }
  });
  for (const path of paths) {
    if (path.some((v) => v.some((part) => !Number.isFinite(part) || Math.abs(part) > 1e6)))
      throw bad('has coordinates that are no numbers or far too large');
    // an end that lies on the beginning is the same vertex
    const [first, last] = [path[0]!, path.at(-1)!];
    if (path.length > 2 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-3) {
      [first[2], first[3]] = [last[2], last[3]];
      path.pop();
      ends.add(path);
    }
    if (path.length > MOST_VERTICES)
      throw bad(`has ${path.length} vertices, more than the ${MOST_VERTICES} that a mask can have`);
  }
  return paths.map((path) => ({ path, closed: ends.has(path) }));
}

/** All that SVG path data encloses, closed or not. @throws JackplaneError bad-media */
export const pathsOf = (data: string, transform = ''): Vertex[][] =>
  subpathsOf(data, transform)
    .map(({ path }) => enclosing(path))
    .filter((path) => path !== null);

/** A path that encloses something, with three vertices or more; null for one that does not. Two with a curve between them do too. */
export const enclosing = (path: Vertex[]): Vertex[] | null =>
  path.length >= 3 ? path : path.length === 2 && path.some(isSmooth) ? withVertex(path, 0, 0.5) : null;
