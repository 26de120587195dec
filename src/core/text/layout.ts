// Lines of text set in rows, letter by letter.
import type { Ring } from '../masks/path';
import { thinned } from '../masks/thinned';
import type { Letter } from './arrival';
import type { TextLine } from './fonts';

export interface Setting {
  /** pixels */
  height: number;
  /** baseline to baseline, in heights of a capital */
  leading: number;
  align: 'left' | 'centre' | 'right';
  /** 0…1 of the letters, from the first on */
  shown: number;
  /** pixels that a row may be wide; 0 for any */
  wrap?: number;
  /** where the middle of the text lies, in pixels */
  middle?: readonly [number, number];
}
/** A stretch of a line that is set by itself. */
interface Row {
  line: TextLine;
  text: readonly string[];
  /** its letters: the first, and the one after the last */
  from: number;
  to: number;
}
/** A line broken at spaces into rows that are no wider than said, where that can be. @param most in heights of a capital; 0 for any width */
function rowsOf(line: TextLine, text: readonly string[], most: number): Row[] {
  const rows: Row[] = [];
  let [from, space] = [0, -1];
  let [left, right] = [Infinity, -Infinity];
  const reach = (i: number) => {
    left = Math.min(left, line.starts[i]!, line.stops[i]!);
    right = Math.max(right, line.starts[i]!, line.stops[i]!);
  };
  for (let i = 0; most > 0 && i < text.length; i++) {
    reach(i);
    if (!text[i]!.trim()) space = i;
    else if (space >= from && right - left > most) {
      rows.push({ line, text, from, to: space });
      from = space + 1;
      [left, right] = [Infinity, -Infinity];
      for (let k = from; k <= i; k++) reach(k);
    }
  }
  return [...rows, { line, text, from, to: text.length }];
}
/** From where to where a row's letters reach. */
function reachOf({ line: { starts, stops }, from, to }: Row): readonly [left: number, right: number] {
  if (from >= to) return [starts[from] ?? 0, starts[from] ?? 0];
  let [left, right] = [Infinity, -Infinity];
  for (let i = from; i < to; i++) {
    left = Math.min(left, starts[i]!, stops[i]!);
    right = Math.max(right, starts[i]!, stops[i]!);
  }
  return [left, right];
}
const widthOf = (row: Row): number => reachOf(row)[1] - reachOf(row)[0];

/** A row with the place that its letters count from: the start of its line, and the line they stand on. Pixels, y down. */
export interface SetRow extends Row {
  /** which line of the text it belongs to */
  of: number;
  x: number;
  y: number;
}
/**
 * Rows of text set about a middle. The block of capitals is centred upright, and sideways by the width it may fill, or its widest row.
 * @param texts the lines' letters
 */
export function setRows(
  lines: readonly TextLine[],
  texts: readonly (readonly string[])[],
  { height, leading, align, wrap = 0, middle = [0, 0] }: Omit<Setting, 'shown'>,
): SetRow[] {
  const rows = lines.flatMap((line, of) => rowsOf(line, texts[of]!, wrap / height).map((row) => ({ ...row, of })));
  // with a width to fill, lines begin and end at its edges
  const widest = Math.max(wrap / height, ...rows.map(widthOf));
  const tall = 1 + (rows.length - 1) * leading;
  return rows.map((row, r) => {
    const width = widthOf(row);
    const left = align === 'left' ? -widest / 2 : align === 'right' ? widest / 2 - width : -width / 2;
    const x = left - reachOf(row)[0];
    return { ...row, x: middle[0] + x * height, y: middle[1] + (1 - tall / 2 + r * leading) * height };
  });
}

/** Lines of text letter by letter, as outlines in pixels, y down. Aligned as a whole even when only some of the letters show. */
export function setLines(lines: readonly TextLine[], texts: readonly string[], setting: Setting): Letter[] {
  const { height } = setting;
  const rows = setRows(
    lines,
    texts.map((text) => [...text]),
    setting,
  );
  const seen = Math.round(setting.shown * rows.reduce((sum, { from, to }) => sum + to - from, 0));
  const out: Letter[] = [];
  let word = 0;
  rows.forEach(({ line, text, from, to, x, y }, r) => {
    const rings = fineFor(line, height);
    for (let i = from; i < to; i++) {
      if (!text[i]!.trim()) word++;
      if (out.length >= seen) return;
      const outlines = rings.slice(i ? line.ends[i - 1] : 0, line.ends[i]);
      out.push({
        rings: outlines.map((ring) => placed(ring, height, x, y)),
        letter: out.length,
        word,
        line: r,
      });
    }
    word++;
  });
  return out;
}
function placed(ring: Ring, scale: number, x: number, y: number): Ring {
  const out = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    out[i] = ring[i]! * scale + x;
    out[i + 1] = ring[i + 1]! * scale + y;
  }
  return out;
}
/** How far a letter's outline may be off, in pixels. */
const OFF = 0.01;
const fine = new WeakMap<TextLine, Map<number, readonly Ring[]>>();
/** A line's outlines with no more points than letters of that height need; kept by the next power of two. */
function fineFor(line: TextLine, height: number): readonly Ring[] {
  const level = 2 ** Math.ceil(Math.log2(Math.max(1, height)));
  const known = fine.get(line) ?? new Map<number, readonly Ring[]>();
  if (!known.has(level))
    known.set(
      level,
      line.rings.map((ring) => thinned(ring, OFF / level)),
    );
  fine.set(line, known);
  return known.get(level)!;
}
