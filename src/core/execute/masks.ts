import { LRUCache } from 'lru-cache';
import { type CoveragePlan, type MaskAssets, type ShapePlan, coverage } from '../masks/coverage';
import type { PlaneTools } from '../masks/distance';
import { matteById, unpackMatte, type DrawnMatte } from '../masks/matte-data';
import { tableValues, type TablePlan } from '../params/table';
import type { Params, PlainValues } from '../params/registry';
import { paramsOf } from '../passes/registry';
import { rgbaOf, type FetchedPicture } from '../picture/fetched';
import type { Rect } from '../picture/rect';
import { hash } from '../base/hash';
import type { PassPlan } from '../plan/types';
import { centred, EMPTY_LINE, MASK_STYLE, styleKey, type LineStyle, type TextLine } from '../text/fonts';

type PictureShape = Extract<ShapePlan, { kind: 'picture' }>;
interface BytePlane {
  w: number;
  h: number;
  values: Uint8Array;
}
/** Outlines of a text at a height of 1, centred on the origin. */
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

/** The names of all colour tables that a pass asks for. */
export const tablesOf = (pass: PassPlan): string[] =>
  Object.entries(paramsOf(pass.type)).flatMap(([name, param]) =>
    param.kind === 'table' ? ((pass.values[name] as TablePlan)?.id ?? []) : [],
  );

/** The keys of all pictures of other layers that values name. */
export const picturesIn = (params: Params, values: PlainValues): string[] =>
  Object.entries(params).flatMap(([name, param]) =>
    param.kind === 'pictures' ? (values[name] as string[]).filter((key) => key) : [],
  );

/** All coverages that a pass asks for. */
export function coveragesOf(pass: PassPlan): CoveragePlan[] {
  const params = paramsOf(pass.type);
  const own = Object.entries(params).flatMap(([name, param]) =>
    param.kind === 'masks' ? [pass.values[name] as CoveragePlan] : [],
  );
  return pass.area ? [...own, pass.area] : own;
}

const pictureKey = ({ stock, file, seconds, channel }: PictureShape): string =>
  `${stock} ${file} ${seconds} ${channel}`;

/** @returns alpha, or BT.709 luma times alpha, of straight 8-bit RGBA */
function channelOf(tools: PlaneTools, fetched: FetchedPicture, channel: PictureShape['channel']): BytePlane {
  const { width, height } = fetched;
  const data = rgbaOf(tools, fetched);
  const values = new Uint8Array(width * height);
  for (let i = 0; i < values.length; i++) {
    const alpha = data[i * 4 + 3]!;
    values[i] =
      channel === 'alpha'
        ? alpha
        : Math.round(((0.2126 * data[i * 4]! + 0.7152 * data[i * 4 + 1]! + 0.0722 * data[i * 4 + 2]!) * alpha) / 255);
  }
  return { w: width, h: height, values };
}
