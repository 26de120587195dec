// Computes frames from plans. Each of the pool has its own kernels, memory and cache.
import { bytesOf, yuvOf } from '../../core/picture/bytes';
import * as Comlink from 'comlink';
import { agreement, carriedMatte } from '../../core/analysis/carry';
import { motionTo } from '../../core/analysis/flow';
import { select, type Pixels, type SelectHint } from '../../core/analysis/select';
import { JackplaneError } from '../../core/base/errors';
import { asMatte, asVeil, thumbnail } from '../../core/execute/backends/wasm/looked';
import type { Problem } from '../../core/execute/execute';
import { WasmExecutor } from '../../core/execute/backends/wasm/executor';
import type { Fetch } from '../../core/execute/backend';
import type { Outline } from '../../core/execute/backends/wasm/masks';
import { fontsFor } from './fonts';
import { measure } from '../../core/execute/backends/wasm/measure';
import { encodePng } from '../../core/formats/png';
import { alphaIn, checkKey } from '../../core/measures/key-check';
import { reliefPicture } from '../../core/measures/relief';
import type { MeasureName, OptionsOf, ResultOf } from '../../core/measures/registry';
import { packMatte, unpackMatte, type DrawnMatte } from '../../core/masks/matte-data';
import { Arena } from '../../core/picture/arena';
import { bindKernels } from '../../core/picture/kernels';
import type { Picture } from '../../core/picture/picture';
import type { AlonePlan, FramePlan, LayerPlan } from '../../core/plan/types';
import { carryErrors } from '../thrown';
import { PATIENCE, tooLong, withPatience } from '../time-limit';
import type { Look, ShownFrame } from '../types';
import type { DecodeApi } from './decode.worker';

carryErrors();

let executor: WasmExecutor;
let decode: Comlink.Remote<DecodeApi>;
/** Drawn mattes that plans name; the page sends each once. */
const mattes = new Map<string, DrawnMatte>();

async function bitmapOf(picture: Picture): Promise<ImageBitmap> {
  const image = new ImageData(bytesOf(executor, picture), picture.rect.w, picture.rect.h);
  return createImageBitmap(image);
}

/** The picture's coverage as a relief, counted. */
async function checked(picture: Picture, problems: Problem[]): Promise<ShownFrame> {
  const { w, h } = picture.rect;
  const pixels = bytesOf(executor, picture);
  picture.release();
  const alpha = alphaIn(pixels);
  const check = checkKey(alpha, w, h);
  const islands = check.islands.map((island) => ({
    ...island,
    x: island.x / w,
    y: island.y / h,
    radius: island.radius / w,
  }));
  const bitmap = await createImageBitmap(new ImageData(reliefPicture(alpha, w, h), w, h));
  return Comlink.transfer({ bitmap, problems, check: { ...check, islands } }, [bitmap]);
}

/** What is written of a whole frame, transferred. */
async function written<T extends Uint8Array<ArrayBuffer> | Uint8ClampedArray<ArrayBuffer>>(
  plan: FramePlan,
  taken: (picture: Picture) => T,
): Promise<T> {
  const problems: Problem[] = [];
  const picture = await executor.frame(plan, 'last', problems);
  try {
    if (problems.length) throw new JackplaneError('bad-media', problems[0]!.sentence, '');
    const data = taken(picture);
    return Comlink.transfer(data, [data.buffer]);
  } finally {
    picture.release();
  }
}

/** Straight 8-bit pixels of a layer's picture. */
async function pixelsOf(layer: LayerPlan): Promise<Pixels> {
  const picture = await executor.layer(layer);
  const { w, h } = picture.rect;
  const data = bytesOf(executor, picture);
  picture.release();
  return { w, h, data };
}

/** A matte of another frame of a layer, moved as the picture moved since. */
async function carried(layer: LayerPlan, from: { layer: LayerPlan; matte: DrawnMatte }): Promise<Uint8Array> {
  const [now, then] = [await executor.layer(layer), await executor.layer(from.layer)];
  const motion = motionTo(executor, now, then);
  const { w, h } = now.rect;
  now.release();
  then.release();
  const matte = unpackMatte(from.matte);
  return motion ? carriedMatte(matte, w, h, motion) : matte;
}

/** Sets a line of text; a font is read when it is first needed. */
const outlineOf: Outline = async (text, style) => {
  const { lineOf } = await import('../../core/text/line');
  return lineOf(await fontsFor(style, (stock, name) => decode.file(stock, name)), text, style.tracking);
};

const api = {
  async start(module: WebAssembly.Module, limit: number, decoder: MessagePort): Promise<void> {
    const arena = new Arena(limit);
    decode = Comlink.wrap<DecodeApi>(decoder);
    const fetchFrame: Fetch = ({ stock, name, seconds }) =>
      withPatience(
        () => decode.frame(stock, name, seconds),
        PATIENCE,
        () => tooLong(name),
      );
    executor = new WasmExecutor(await bindKernels(module, arena), arena, fetchFrame, outlineOf, (id) => mattes.get(id));
  },

  /** Another decoder takes the place of one that stopped answering. */
  connectDecoder(port: MessagePort): void {
    decode = Comlink.wrap<DecodeApi>(port);
  },

  keepMattes(sent: [string, DrawnMatte][]): void {
    sent.forEach(([id, matte]) => mattes.set(id, matte));
  },

  /** A frame to show. @param editing keep every step, for turning dials */
  async show(plan: FramePlan, look: Look, editing: boolean): Promise<ShownFrame> {
    const problems: Problem[] = [];
    let picture = await executor.frame(plan, editing ? 'every' : 'last', problems);
    if (look === 'relief') return checked(picture, problems);
    if (look !== 'picture') picture = (look === 'matte' ? asMatte : asVeil)(executor, picture);
    const bitmap = await bitmapOf(picture);
    picture.release();
    const { seen, width, height } = plan;
    return Comlink.transfer({ bitmap, problems, ...(seen && { part: { x: seen.x, y: seen.y, width, height } }) }, [
      bitmap,
    ]);
  },

  /** A frame as a PNG file. @throws when a layer cannot be computed */
  png: (plan: FramePlan): Promise<Uint8Array<ArrayBuffer>> =>
    written(plan, (picture) => encodePng(bytesOf(executor, picture), plan.width, plan.height)),

  /** A frame as straight 8-bit RGBA, for a file. @throws when a layer cannot be computed */
  bytes: (plan: FramePlan): Promise<Uint8ClampedArray<ArrayBuffer>> =>
    written(plan, (picture) => bytesOf(executor, picture)),

  /**
   * A frame as 8-bit Y′CbCr for a file: BT.709, limited range, 4:2:0. @param alpha with a fourth plane of coverage
   * @throws when a layer cannot be computed
   */
  yuv: (plan: FramePlan, alpha: boolean): Promise<Uint8Array<ArrayBuffer>> =>
    written(plan, (picture) => yuvOf(executor, picture, alpha)),

  /** A layer's picture after its source and after each of its passes, small. */
  async thumbnails(layer: LayerPlan, width: number, height: number): Promise<ImageBitmap[]> {
    const out: ImageBitmap[] = [];
    for (let count = 0; count <= layer.passes.length; count++) {
      const picture = await executor.layer({ ...layer, passes: layer.passes.slice(0, count) });
      const small = thumbnail(executor, picture, layer.size, width, height);
      picture.release();
      out.push(await bitmapOf(small));
      small.release();
    }
    return Comlink.transfer(out, out);
  },

  /** Measures a layer's picture. Large data of the result is transferred. */
  async measure<N extends MeasureName>(layer: AlonePlan | null, name: N, options: OptionsOf<N>): Promise<ResultOf<N>> {
    const result = await measure(executor, layer, name, options);
    const data = Object.values(result ?? {}).filter((part) => ArrayBuffer.isView(part));
    // nothing was found, or there is nothing large in it
    if (!data.length) return result;
    return Comlink.transfer(
      result,
      data.map((part) => part.buffer as ArrayBuffer),
    );
  },

  /**
   * A smart selection of a layer's picture. @param carry the layer at the frame before and its matte, which go on to this one
   */
  async select(
    layer: LayerPlan,
    hints: readonly SelectHint[],
    carry: { layer: LayerPlan; matte: DrawnMatte } | null,
  ): Promise<{ matte: DrawnMatte; confidence: number }> {
    const pixels = await pixelsOf(layer);
    const before = carry && (await carried(layer, carry));
    const found = select(pixels, hints, before ?? undefined);
    const confidence = before ? found.confidence * agreement(found.matte, before, found.w) : found.confidence;
    return { matte: packMatte(found.matte, found.w, found.h), confidence };
  },
};

export type RenderApi = typeof api;
Comlink.expose(api);
