import { JackplaneError } from '../../core/base/errors';
import type { DrawnElement, Paint } from '../../core/formats/svg-drawing';
import type { Colour } from '../../core/params/define';
import { fromHex } from '../../core/base/hex';

/** What an SVG file draws. Nothing of it is run, fetched or put into the page. */
export interface SvgDrawing {
  /** its view box: left, top, width, height; null where the file does not say */
  view: readonly [number, number, number, number] | null;
  elements: DrawnElement[];
  /** kinds of elements that were left out */
  ignored: string[];
}

const MOST_BYTES = 20e6;
const DRAWN = 'path, polygon, polyline, line, rect, circle, ellipse';
const LEFT_OUT = 'script, image, text, foreignObject, use, animate, animateTransform, set, filter, mask, clipPath';

/** @throws JackplaneError bad-media, unsupported */
export async function readSvg(file: File): Promise<SvgDrawing> {
  if (file.size > MOST_BYTES)
    throw new JackplaneError(
      'unsupported',
      `“${file.name}” is larger than ${MOST_BYTES / 1e6} MB.`,
      'Simplify the drawing.',
    );
  const tree = new DOMParser().parseFromString(await file.text(), 'image/svg+xml');
  const root = tree.documentElement;
  if (root.nodeName !== 'svg' || tree.querySelector('parsererror'))
    throw new JackplaneError('bad-media', `“${file.name}” is not an SVG drawing.`, 'Choose an SVG file with paths.');
  const rules = rulesIn(tree);
  const shown = [...tree.querySelectorAll(DRAWN)].filter(
    (element) => !element.closest('defs, symbol, clipPath, mask, pattern, marker'),
  );
  return {
    view: viewOf(root),
    elements: shown.map((element) => elementOf(element, rules)),
    ignored: [...new Set([...tree.querySelectorAll(LEFT_OUT)].map(({ nodeName }) => nodeName))],
  };
}

function viewOf(root: Element): SvgDrawing['view'] {
  const box = root
    .getAttribute('viewBox')
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const [w, h] = ['width', 'height'].map((name) => parseFloat(root.getAttribute(name) ?? ''));
  const view = box?.length === 4 ? box : [0, 0, w, h];
  return view.every((v) => Number.isFinite(v!)) && view[2]! > 0 && view[3]! > 0
    ? (view as unknown as SvgDrawing['view'])
    : null;
}

type Rules = readonly { selector: string; properties: ReadonlyMap<string, string> }[];
const propertiesOf = (text: string): Map<string, string> =>
  new Map(
    text
      .split(';')
      .map((part) => part.split(':').map((side) => side.trim()))
      .filter((pair): pair is [string, string] => pair.length === 2 && !!pair[0]),
  );
/** The rules of a drawing's style sheets that name elements, classes or ids. */
const rulesIn = (tree: Document): Rules =>
  [...tree.querySelectorAll('style')].flatMap(({ textContent }) =>
    [...(textContent ?? '').replace(/\/\*[\s\S]*?\*\//g, '').matchAll(/([^{}@]+)\{([^{}]*)\}/g)].flatMap(
      ([, names, body]) =>
        names!
          .split(',')
          .map((name) => name.trim())
          .filter((name) => /^[.#]?[\w-]+$/.test(name))
          .map((selector) => ({ selector, properties: propertiesOf(body!) })),
    ),
  );

/** A property of an element itself: by its style, a style sheet, or as an attribute. */
function ownProperty(element: Element, name: string, rules: Rules): string | null {
  const styled = propertiesOf(element.getAttribute('style') ?? '').get(name);
  const byRule = rules.findLast(({ selector, properties }) => properties.has(name) && element.matches(selector));
  return styled ?? byRule?.properties.get(name) ?? element.getAttribute(name);
}
/** The same of what it lies in, where it has none. */
function property(element: Element, name: string, rules: Rules): string | null {
  for (let at: Element | null = element; at; at = at.parentElement) {
    const own = ownProperty(at, name, rules);
    if (own !== null && own !== 'inherit') return own;
  }
  return null;
}

function elementOf(element: Element, rules: Rules): DrawnElement {
  const now = (name: string) => property(element, name, rules);
  const share = (name: string) => Math.min(1, Math.max(0, shareOf(now(name))));
  let opacity = 1;
  for (let at: Element | null = element; at; at = at.parentElement) {
    opacity *= Math.min(1, Math.max(0, shareOf(ownProperty(at, 'opacity', rules))));
    if (ownProperty(at, 'display', rules) === 'none') opacity = 0;
  }
  const fill = paintOf(now('fill') ?? 'black', element);
  const line = paintOf(now('stroke') ?? 'none', element);
  const width = parseFloat(now('stroke-width') ?? '1');
  const join = now('stroke-linejoin');
  const cap = now('stroke-linecap');
  const shown = now('visibility') !== 'hidden' && opacity > 0;
  return {
    name: element.querySelector('title')?.textContent?.trim() || element.id || 'Path',
    d: dataOf(element),
    transform: transformsOf(element),
    evenOdd: now('fill-rule') === 'evenodd',
    fill: shown && element.nodeName !== 'line' ? fill : null,
    line:
      shown && line && width > 0
        ? {
            colour: 'run' in line ? line.colours[0]![1] : line,
            width,
            cap: cap === 'round' || cap === 'square' ? cap : 'flat',
            join: join === 'round' || join === 'bevel' ? join : 'mitre',
          }
        : null,
    opacity: Math.round(opacity * share(fill ? 'fill-opacity' : 'stroke-opacity') * 1000) / 1000,
  };
}
const shareOf = (text: string | null): number => {
  const v = parseFloat(text ?? '1');
  return Number.isFinite(v) ? (text?.endsWith('%') ? v / 100 : v) : 1;
};

/** What a paint means: a colour in any of CSS's ways, or a gradient of the same drawing. */
function paintOf(text: string, element: Element): Paint | null {
  const id = /^url\(['"]?#([^'")]+)['"]?\)/.exec(text.trim())?.[1];
  if (!id) return text === 'none' || text === 'transparent' ? null : colourOf(text, element);
  const found = element.ownerDocument.getElementById(id);
  const stops = [...(stopsFrom(found)?.querySelectorAll('stop') ?? [])].map((stop): [number, Colour] => [
    Math.min(1, Math.max(0, shareOf(stop.getAttribute('offset') ?? '0'))),
    colourOf(ownProperty(stop, 'stop-color', []) ?? 'black', stop) ?? [0, 0, 0],
  ]);
  if (!stops.length) return null;
  if (stops.length === 1 || found?.nodeName !== 'linearGradient') return stops.at(-1)![1];
  const end = (name: string, otherwise: number) => {
    const v = found.getAttribute(name);
    return v === null ? otherwise : shareOf(v);
  };
  const [dx, dy] = [end('x2', 1) - end('x1', 0), end('y2', 0) - end('y1', 0)];
  const colours = stops.sort(([a], [b]) => a - b).slice(0, 16);
  return { colours, run: Math.round((Math.atan2(dy, dx) * 1800) / Math.PI) / 10 };
}
/** The gradient that a gradient has its colours from. */
function stopsFrom(gradient: Element | null): Element | null {
  const of = gradient?.getAttribute('href') ?? gradient?.getAttribute('xlink:href');
  return gradient && !gradient.querySelector('stop') && of?.startsWith('#')
    ? gradient.ownerDocument.getElementById(of.slice(1))
    : gradient;
}

/** The browser itself knows what a colour's name or formula means. */
function colourOf(text: string, element: Element): Colour | null {
  const context = new OffscreenCanvas(1, 1).getContext('2d')!;
  context.fillStyle = text === 'currentColor' ? (property(element, 'color', []) ?? 'black') : text;
  const { fillStyle } = context;
  if (typeof fillStyle !== 'string') return null;
  if (fillStyle.startsWith('#')) return fromHex(fillStyle);
  const parts = fillStyle.match(/[\d.]+/g)?.map(Number);
  return parts && parts.length >= 3 && parts[3] !== 0 ? [parts[0]! / 255, parts[1]! / 255, parts[2]! / 255] : null;
}

/** What an element draws, as path data. */
function dataOf(element: Element): string {
  const number = (name: string) => parseFloat(element.getAttribute(name) ?? '') || 0;
  const points = element.getAttribute('points') ?? '';
  switch (element.nodeName) {
    case 'polygon':
      return `M${points}Z`;
    case 'polyline':
      return `M${points}`;
    case 'line':
      return `M${number('x1')} ${number('y1')}L${number('x2')} ${number('y2')}`;
    case 'circle':
    case 'ellipse':
      return ovalData(number('cx'), number('cy'), number('rx') || number('r'), number('ry') || number('r'));
    case 'rect':
      return boxData(number('x'), number('y'), number('width'), number('height'), roundness(element));
    default:
      return element.getAttribute('d') ?? '';
  }
}
function roundness(element: Element): [number, number] {
  const [rx, ry] = ['rx', 'ry'].map((name) => parseFloat(element.getAttribute(name) ?? ''));
  return [rx || ry || 0, ry || rx || 0];
}
const ovalData = (x: number, y: number, rx: number, ry: number): string =>
  rx && ry ? `M${x - rx} ${y}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0Z` : '';
function boxData(x: number, y: number, w: number, h: number, [rx, ry]: [number, number]): string {
  if (!w || !h) return '';
  const [a, b] = [Math.min(rx, w / 2), Math.min(ry, h / 2)];
  if (!a || !b) return `M${x} ${y}h${w}v${h}h${-w}Z`;
  const corner = (dx: number, dy: number) => `a${a} ${b} 0 0 1 ${dx} ${dy}`;
  return `M${x + a} ${y}h${w - 2 * a}${corner(a, b)}v${h - 2 * b}${corner(-a, b)}h${2 * a - w}${corner(-a, -b)}v${2 * b - h}${corner(a, -b)}Z`;
}

/** The transforms of an element and of all it lies in, the outermost first. */
function transformsOf(element: Element): string {
  const out: string[] = [];
  for (let at: Element | null = element; at; at = at.parentElement) out.unshift(at.getAttribute('transform') ?? '');
  return out.join(' ');
}
