import type { FrameRate } from './rate';

export interface QuantityContext {
  /** what the field holds now, in the field's own measure; `+40` and `50%` refer to it */
  current: number;
  /** true when the field itself is in percent, so that `50%` means 50 */
  percent?: boolean;
  /** for `1.5s` and `36f` in fields that count frames */
  rate?: FrameRate;
}

/**
 * Reads a typed number: arithmetic with + − × ÷ and brackets, `50%` (of the current value, or plain percent in a percent
 * field), a leading `+` as a step from the current value, `1.5s` and `36f` in frame fields.
 * @returns the number, or null when it cannot be read
 */
export function parseQuantity(text: string, context: QuantityContext): number | null {
  const source = text
    .trim()
    .toLowerCase()
    .replaceAll('×', '*')
    .replaceAll('÷', '/')
    .replaceAll('−', '-')
    .replaceAll(',', '.');
  if (!source) return null;
  const relative = source.startsWith('+');
  const reader = new Reader(relative ? source.slice(1) : source, context);
  const value = reader.sum();
  if (value === null || !reader.atEnd || !Number.isFinite(value)) return null;
  return relative ? context.current + value : value;
}

/**
 * Several numbers typed or pasted at once: parted by semicolons, tabs or a comma with a space after it. A comma between digits belongs
 * to its number.
 * @returns each as it was typed, at least one
 */
export const listed = (text: string): string[] => text.trim().split(/\s*;\s*|\s*\t\s*|,\s+/);

class Reader {
  private at = 0;
  constructor(
    private readonly text: string,
    private readonly context: QuantityContext,
  ) {}

  get atEnd(): boolean {
    this.skip();
    return this.at === this.text.length;
  }

  private skip(): void {
    while (this.text[this.at] === ' ') this.at++;
  }

  private take(...signs: string[]): string | null {
    this.skip();
    const sign = signs.find((s) => this.text[this.at] === s);
    if (sign) this.at++;
    return sign ?? null;
  }

  sum(): number | null {
    let value = this.product();
    for (let sign; value !== null && (sign = this.take('+', '-'));) {
      const next = this.product();
      value = next === null ? null : sign === '+' ? value + next : value - next;
    }
    return value;
  }

  private product(): number | null {
    let value = this.factor();
    for (let sign; value !== null && (sign = this.take('*', '/'));) {
      const next = this.factor();
      value = next === null ? null : sign === '*' ? value * next : value / next;
    }
    return value;
  }

  private factor(): number | null {
    if (this.take('-')) {
      const value = this.factor();
      return value === null ? null : -value;
    }
    if (this.take('(')) {
      const value = this.sum();
      return this.take(')') ? value : null;
    }
    this.skip();
    const match = /^(\d+\.?\d*|\.\d+)\s*(%|px|°|stops|s|f)?/.exec(this.text.slice(this.at));
    if (!match) return null;
    this.at += match[0].length;
    return this.measured(Number(match[1]), match[2]);
  }

  private measured(value: number, unit: string | undefined): number | null {
    const { rate, percent, current } = this.context;
    if (unit === '%') return percent ? value : (current * value) / 100;
    if (unit === 's') return rate ? Math.round((value * rate.num) / rate.den) : null;
    if (unit === 'f') return rate ? value : null;
    return value;
  }
}
