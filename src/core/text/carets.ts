// Where a caret stands between the letters of a set text, and what a stretch of them covers.
import type { TextLine } from './fonts';
import { setRows, type SetRow, type Setting } from './layout';

/** A caret before one letter, or after a row's last. Pixels, y down; rows are counted from the top. */
export interface Caret {
  /** how many UTF-16 units of the text come before it */
  index: number;
  row: number;
  x: number;
  top: number;
  bottom: number;
}
/** How far a caret reaches above a capital and below the line, in heights of a capital. */
const [ABOVE, BELOW] = [1.25, 0.3];

/** The carets of a text, in its order: one before every letter, and one at the end of every line. @param text lines by line breaks */
export function caretsOf(lines: readonly TextLine[], text: string, setting: Omit<Setting, 'shown'>): Caret[] {
  const texts = text.split('\n').map((line) => [...line]);
  const { height } = setting;
  let begins = 0;
  /** where each letter begins */
  const starts = texts.map((letters) => [...letters, '\n'].map(({ length }) => (begins += length) - length));
  const carets: Caret[] = [];
  setRows(lines, texts, setting).forEach((row, r) => {
    for (let i = row.from; i <= row.to; i++)
      carets.push({
        index: starts[row.of]![i]!,
        row: r,
        x: xOf(row, i, height),
        top: row.y - ABOVE * height,
        bottom: row.y + BELOW * height,
      });
  });
  return carets;
}
const xOf = ({ line, x, from, to }: SetRow, letter: number, height: number): number =>
  x + (letter < to || to === from ? (line.starts[letter] ?? 0) : line.stops[to - 1]!) * height;

/** The caret nearest to a place: of the row whose middle is nearest, and there by x. @returns undefined when there are none */
export function caretNear(carets: readonly Caret[], [x, y]: readonly [number, number]): Caret | undefined {
  const away = ({ top, bottom }: Caret) => Math.abs((top + bottom) / 2 - y);
  const least = Math.min(...carets.map(away));
  return carets
    .filter((caret) => away(caret) === least)
    .reduce<Caret | undefined>(
      (best, caret) => (best && Math.abs(best.x - x) <= Math.abs(caret.x - x) ? best : caret),
      undefined,
    );
}

/** The rectangles of what is chosen, one a row. @param from @param to UTF-16 units of the text */
export function chosenOf(
  carets: readonly Caret[],
  from: number,
  to: number,
): { left: number; right: number; top: number; bottom: number }[] {
  const rows = new Map<number, Caret[]>();
  for (const caret of carets)
    if (caret.index >= from && caret.index <= to) rows.set(caret.row, [...(rows.get(caret.row) ?? []), caret]);
  return [...rows.values()]
    .map((row) => ({ left: row[0]!.x, right: row.at(-1)!.x, top: row[0]!.top, bottom: row[0]!.bottom }))
    .filter(({ left, right }) => right > left);
}
