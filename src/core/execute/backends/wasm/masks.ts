import { LRUCache } from 'lru-cache';
import { type CoveragePlan, type MaskAssets, type ShapePlan, coverage } from '../../../masks/coverage';
import type { PlaneTools } from '../../../masks/distance';
import { matteById, unpackMatte, type DrawnMatte } from '../../../masks/matte-data';
import { tableValues, type TablePlan } from '../../../params/table';
import { rgbaOf, type FetchedPicture } from '../../../picture/fetched';
import type { Rect } from '../../../picture/rect';
import { hash } from '../../../base/hash';
import { centred, EMPTY_LINE, MASK_STYLE, styleKey, type LineStyle, type TextLine } from '../../../text/fonts';

type PictureShape = Extract<ShapePlan, { kind: 'picture' }>;
interface BytePlane {
  w: number;
  h: number;
  values: Uint8Array;
}
/** Sets a line of text. */
export type Outline = (text: string, style: LineStyle) => Promise<TextLine>;
type FetchPicture = (shape: PictureShape) => Promise<FetchedPicture>;

/** Most bytes of planes held. */
const PLANES = 64e6;
const ASSETS = 40;
/** Lines of text that are held. */
const LINES = 400;

/** Planes of masks by content, and the pictures and outlines that they need. */
export class MaskStore {
  private readonly planes = new LRUCache<string, Float32Array>({
    maxSize: PLANES,
    sizeCalculation: (plane) => Math.max(1, plane.byteLength),
  });
  private readonly pictures = new LRUCache<string, BytePlane>({ max: ASSETS });
  private readonly texts = new LRUCache<string, TextLine>({ max: LINES });

  constructor(
    private readonly tools: PlaneTools,
    private readonly fetchPicture: FetchPicture,
    private readonly outline: Outline,
    private readonly matteOf: (id: string) => DrawnMatte | undefined = matteById,
  ) {}

  /** Fetches all that coverages need. */
  async prepare(plans: readonly CoveragePlan[]): Promise<void> {
    for (const shape of plans.flatMap((plan) => plan.masks.map((mask) => mask.shape))) {
      if (shape.kind === 'picture' && !this.pictures.has(pictureKey(shape)))
        this.pictures.set(pictureKey(shape), channelOf(this.tools, await this.fetchPicture(shape), shape.channel));
      if (shape.kind === 'text') await this.prepareLines([[shape.text, MASK_STYLE]]);
    }
  }

  /** Sets lines of text that will be drawn. @returns the letters that their fonts do not have */
  async prepareLines(lines: readonly (readonly [text: string, style: LineStyle])[]): Promise<string> {
    for (const [text, style] of lines) {
      const key = styleKey(text, style);
      if (!this.texts.has(key)) this.texts.set(key, await this.outline(text, style));
    }
    return [...new Set(lines.flatMap(([text, style]) => [...this.line(text, style).missing]))].join('');
  }
  line(text: string, style: LineStyle): TextLine {
    return this.texts.get(styleKey(text, style)) ?? EMPTY_LINE;
  }

  /** Coverage over a rectangle, computed or held. Not to be changed. */
  plane(plan: CoveragePlan, rect: Rect): Float32Array {
    const key = hash(JSON.stringify([plan, rect]));
    const held = this.planes.get(key);
    if (held) return held;
    const plane = coverage(plan, rect, this.assets, this.tools);
    this.planes.set(key, plane);
    return plane;
  }

  /** Values of a colour table, computed or held. Not to be changed. */
  table(plan: NonNullable<TablePlan>): Float32Array | null {
    const key = `table ${plan.id}`;
    const held = this.planes.get(key);
    if (held) return held;
    const data = this.matteOf(plan.id);
    if (!data) return null;
    const values = tableValues(plan, data);
    this.planes.set(key, values);
    return values;
  }

  private readonly assets: MaskAssets = {
    plane: (shape) => {
      if (shape.kind === 'picture') return this.pictures.get(pictureKey(shape)) ?? null;
      const matte = this.matteOf(shape.id);
      if (!matte) return null;
      const held = this.pictures.get(shape.id) ?? { w: matte.w, h: matte.h, values: unpackMatte(matte) };
      this.pictures.set(shape.id, held);
      return held;
    },
    outlines: (text) => centred(this.line(text, MASK_STYLE)),
  };
}

const pictureKey = ({ stock, file, seconds, channel }: PictureShape): string =>
  `${stock} ${file} ${seconds} ${channel}`;

/** @returns alpha, or BT.709 luma times alpha, of straight 8-bit RGBA */
function channelOf(tools: PlaneTools, fetched: FetchedPicture, channel: PictureShape['channel']): BytePlane {
  const { width, height } = fetched;
  const [data, n] = [rgbaOf(tools, fetched), width * height];
  const values = tools.arena.scratch(5 * n, (at) => {
    tools.arena.bytes(at, 4 * n).set(data);
    tools.kernels.channelBytes(at, n, channel === 'alpha' ? 0 : 1, at + 4 * n);
    return Uint8Array.from(tools.arena.bytes(at + 4 * n, n));
  });
  return { w: width, h: height, values };
}
