// WOFF2 fonts unpacked into their tables. Source: W3C, WOFF File Format 2.0.
import { decompress } from 'brotli/decompress';

/** Tags that have a number instead of letters. */
const TAGS =
  'cmap head hhea hmtx maxp name OS/2 post cvt_ fpgm glyf loca prep CFF_ VORG EBDT EBLC gasp hdmx kern LTSH PCLT VDMX vhea vmtx BASE GDEF GPOS GSUB EBSC JSTF MATH CBDT CBLC COLR CPAL SVG_ sbix acnt avar bdat bloc bsln cvar fdsc feat fmtx fvar gvar hsty just lcar mort morx opbd prop trak Zapf Silf Glat Gloc Feat Sill'
    .split(' ')
    .map((tag) => tag.replace('_', ' '));
const OTHER_TAG = 63;

/** Reads numbers one after the other; big end first. @throws RangeError at the end */
class Reader {
  at = 0;
  private readonly view: DataView;
  constructor(readonly data: Uint8Array) {
    this.view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  }
  u8 = (): number => this.view.getUint8(this.at++);
  u16 = (): number => this.view.getUint16((this.at += 2) - 2);
  i16 = (): number => this.view.getInt16((this.at += 2) - 2);
  u32 = (): number => this.view.getUint32((this.at += 4) - 4);
  bytes(count: number): Uint8Array {
    if (this.at + count > this.data.length) throw new RangeError('the file ends');
    return this.data.subarray(this.at, (this.at += count));
  }
  part = (count: number): Reader => new Reader(this.bytes(count));
  /** UIntBase128 */
  packed32(): number {
    let v = 0;
    for (let i = 0; i < 5; i++) {
      const byte = this.u8();
      v = v * 128 + (byte & 127);
      if (byte < 128) return v;
    }
    throw new RangeError('a number is too long');
  }
  /** 255UInt16 */
  packed16(): number {
    const code = this.u8();
    return code === 253 ? this.u16() : code === 255 ? 253 + this.u8() : code === 254 ? 506 + this.u8() : code;
  }
}
class Writer {
  private data = new Uint8Array(1 << 16);
  length = 0;
  private room(count: number): DataView {
    if (this.length + count > this.data.length) {
      const more = new Uint8Array(2 * (this.length + count));
      more.set(this.data);
      this.data = more;
    }
    return new DataView(this.data.buffer);
  }
  u8 = (v: number): void => (this.room(1).setUint8(this.length, v), void (this.length += 1));
  i16 = (v: number): void => (this.room(2).setInt16(this.length, v), void (this.length += 2));
  u32 = (v: number): void => (this.room(4).setUint32(this.length, v), void (this.length += 4));
  bytes(own: Uint8Array): void {
    this.room(own.length);
    this.data.set(own, this.length);
    this.length += own.length;
  }
  align(): void {
    while (this.length % 4) this.u8(0);
  }
  all = (): Uint8Array => this.data.slice(0, this.length);
}

export interface FontTables {
  /** what kind of outlines it has: the first four bytes of a plain font */
  flavor: number;
  /** in the order of their tags */
  tables: readonly (readonly [tag: string, data: Uint8Array])[];
}

/** @param most bytes that it may have when it is unpacked @throws RangeError when it is cut off, too large, or no such font */
export function woff2Tables(data: Uint8Array, most: number): FontTables {
  const head = new Reader(data);
  head.at = 4;
  const flavor = head.u32();
  if (flavor === 0x74746366 /* ttcf */) throw new RangeError('collections are not read');
  head.at = 12;
  const count = head.u16();
  head.at = 20;
  const packed = head.u32();
  head.at = 48;
  const entries = Array.from({ length: count }, () => {
    const flags = head.u8();
    const tag = (flags & 63) === OTHER_TAG ? String.fromCharCode(...head.bytes(4)) : TAGS[flags & 63]!;
    const length = head.packed32();
    const version = flags >> 6;
    const changed = tag === 'glyf' || tag === 'loca' ? version !== 3 : version !== 0;
    return { tag, length, changed, stored: changed ? head.packed32() : length };
  });
  const whole = entries.reduce((sum, { stored, length }) => sum + stored + length, 0);
  if (whole > most) throw new RangeError('it is too large');
  const stored = new Reader(
    decompress(
      head.bytes(packed),
      entries.reduce((sum, entry) => sum + entry.stored, 0),
    ),
  );
  const parts = new Map(entries.map(({ tag, changed, stored: own }) => [tag, { changed, data: stored.bytes(own) }]));
  const out = new Map([...parts].map(([tag, part]) => [tag, part.data]));
  const glyf = parts.get('glyf');
  if (glyf?.changed) {
    const { glyphs, places, lefts } = outlines(new Reader(glyf.data), most);
    out.set('glyf', glyphs);
    out.set('loca', places);
    // its places have four bytes each
    const header = out.get('head')!.slice();
    new DataView(header.buffer).setInt16(50, 1);
    out.set('head', header);
    if (parts.get('hmtx')?.changed) out.set('hmtx', metrics(out, lefts));
  }
  return { flavor, tables: [...out].sort(([a], [b]) => (a < b ? -1 : 1)) };
}

/** Outlines and where each begins, from streams of their numbers; and how far left each reaches. */
function outlines(from: Reader, most: number): { glyphs: Uint8Array; places: Uint8Array; lefts: number[] } {
  from.at = 4;
  const count = from.u16();
  from.at = 8;
  const sizes = Array.from({ length: 7 }, () => from.u32());
  const [contours, points, flags, coordinates, composites, boxes, code] = sizes.map((size) => from.part(size)) as [
    Reader,
    Reader,
    Reader,
    Reader,
    Reader,
    Reader,
    Reader,
  ];
  const boxed = boxes.bytes(4 * Math.ceil(count / 32));
  const [glyphs, places] = [new Writer(), new Writer()];
  const lefts: number[] = [];
  const box = (own: readonly number[] | Reader): void =>
    (own instanceof Reader ? [own.i16(), own.i16(), own.i16(), own.i16()] : own).forEach((v, i) => {
      if (i === 0) lefts.push(v);
      glyphs.i16(v);
    });
  for (let g = 0; g < count; g++) {
    places.u32(glyphs.length);
    if (glyphs.length > most) throw new RangeError('it is too large');
    const own = (boxed[g >> 3]! & (128 >> (g & 7))) !== 0;
    const many = contours.i16();
    if (many === 0) lefts.push(0);
    else if (many < 0) {
      glyphs.i16(-1);
      box(boxes);
      const begins = composites.at;
      const more = components(composites);
      glyphs.bytes(composites.data.subarray(begins, composites.at));
      if (more) {
        const length = coordinates.packed16();
        glyphs.i16(length);
        glyphs.bytes(code.bytes(length));
      }
    } else simple(many, own ? boxes : null, { glyphs, points, flags, coordinates, code, box });
    glyphs.align();
  }
  places.u32(glyphs.length);
  return { glyphs: glyphs.all(), places: places.all(), lefts };
}

/** Goes over the parts of a composite glyph. @returns whether it has instructions */
function components(from: Reader): boolean {
  const [WORDS, SCALE, MORE, TWO_SCALES, MATRIX, CODE] = [1, 8, 32, 64, 128, 256];
  let [flags, code] = [MORE, false];
  while (flags & MORE) {
    flags = from.u16();
    code ||= (flags & CODE) !== 0;
    const scales = flags & SCALE ? 2 : flags & TWO_SCALES ? 4 : flags & MATRIX ? 8 : 0;
    from.bytes(2 + (flags & WORDS ? 4 : 2) + scales);
  }
  return code;
}

/** How far a point lies from the one before it. Source: the specification's triplet encoding. */
function step(flag: number, from: Reader): [dx: number, dy: number] {
  const sign = (bit: number, v: number) => (bit & 1 ? v : -v);
  if (flag < 10) return [0, sign(flag, ((flag & 14) << 7) + from.u8())];
  if (flag < 20) return [sign(flag, (((flag - 10) & 14) << 7) + from.u8()), 0];
  if (flag < 84) {
    const [a, b] = [flag - 20, from.u8()];
    return [sign(flag, 1 + (a & 0x30) + (b >> 4)), sign(flag >> 1, 1 + ((a & 0x0c) << 2) + (b & 15))];
  }
  if (flag < 120) {
    const a = flag - 84;
    const dx = 1 + (Math.floor(a / 12) << 8) + from.u8();
    return [sign(flag, dx), sign(flag >> 1, 1 + (((a % 12) >> 2) << 8) + from.u8())];
  }
  if (flag < 124) {
    const [a, b, c] = [from.u8(), from.u8(), from.u8()];
    return [sign(flag, (a << 4) + (b >> 4)), sign(flag >> 1, ((b & 15) << 8) + c)];
  }
  const [dx, dy] = [from.u16(), from.u16()];
  return [sign(flag, dx), sign(flag >> 1, dy)];
}

interface Streams {
  glyphs: Writer;
  points: Reader;
  flags: Reader;
  coordinates: Reader;
  code: Reader;
  box(own: readonly number[] | Reader): void;
}
function simple(many: number, own: Reader | null, { glyphs, points, flags, coordinates, code, box }: Streams): void {
  const ends: number[] = [];
  for (let i = 0; i < many; i++) ends.push((ends.at(-1) ?? -1) + points.packed16());
  const [on, xs, ys]: [number[], number[], number[]] = [[], [], []];
  let [x, y] = [0, 0];
  for (let i = 0; i <= ends.at(-1)!; i++) {
    const flag = flags.u8();
    const [dx, dy] = step(flag & 127, coordinates);
    on.push(flag < 128 ? 1 : 0);
    xs.push((x += dx));
    ys.push((y += dy));
  }
  const least = (list: readonly number[]) => list.reduce((a, b) => Math.min(a, b));
  const greatest = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b));
  glyphs.i16(many);
  box(own ?? [least(xs), least(ys), greatest(xs), greatest(ys)]);
  ends.forEach(glyphs.i16);
  const length = coordinates.packed16();
  glyphs.i16(length);
  glyphs.bytes(code.bytes(length));
  // every step is written with two bytes
  on.forEach(glyphs.u8);
  for (const list of [xs, ys]) list.forEach((v, i) => glyphs.i16(v - (i ? list[i - 1]! : 0)));
}

/** Widths and left sides of letters, which are left out where they are where the outlines begin. */
function metrics(tables: ReadonlyMap<string, Uint8Array>, lefts: readonly number[]): Uint8Array {
  const from = new Reader(tables.get('hmtx')!);
  const many = new Reader(tables.get('hhea')!);
  many.at = 34;
  const [flags, wide] = [from.u8(), many.u16()];
  const widths = Array.from({ length: wide }, from.u16);
  const sides = lefts.map((left, g) => ((g < wide ? flags & 1 : flags & 2) ? left : from.i16()));
  const out = new Writer();
  sides.forEach((side, g) => {
    if (g < wide) out.i16(widths[g]!);
    out.i16(side);
  });
  return out.all();
}
