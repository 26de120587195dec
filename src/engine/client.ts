// What the app sees of the engine: typed calls to the workers, and the cache of finished frames.
import type { Font } from '../core/text/line';
import type { LineStyle } from '../core/text/fonts';
import type { DrawnMatte } from '../core/masks/matte-data';
import * as Comlink from 'comlink';
import kernelsUrl from '../../build/kernels.wasm?url';
import type { SelectHint } from '../core/analysis/select';
import { JackplaneError } from '../core/base/errors';
import type { Project, ShotId } from '../core/document/schema';
import type { OpenedProject } from '../core/formats/project-file';
import type { MeasureName, OptionsOf, ResultOf } from '../core/measures/registry';
import type { AlonePlan, FramePlan, LayerPlan } from '../core/plan/types';
import { FrameCache } from './frame-cache';
import { budgetFor, type Budget } from './limits';
import { MatteSender, nameBigData } from './mattes';
import { Queue, type Wish } from './queue';
import { LOOK, SHOWN } from './wishes';
import { Sounds, type OpenFile } from './sounds';
import { carryErrors } from './thrown';
import { Users } from './users';
import { PATIENCE, tooLong, withPatience } from './time-limit';
import type { Look, Probe, RenderResult, RenderSettings, ShownFrame } from './types';
import type { DecodeApi, DecoderNews } from './workers/decode.worker';
import type { EncodeApi } from './workers/encode.worker';
import type { FilesApi } from './workers/files.worker';
import type { RenderApi } from './workers/render.worker';
import type { TrackApi } from './workers/track.worker';
import type { SoundApi } from './workers/sound.worker';
import { TrackRunner } from './tracks';

/** What this browser lacks, each as a sentence; empty when everything is there. */
export function missingAbilities(): string[] {
  const missing: string[] = [];
  if (typeof VideoDecoder === 'undefined')
    missing.push(
      'This browser has no WebCodecs, so it cannot decode or write video. Use a current Chromium, Edge or Safari.',
    );
  if (typeof OffscreenCanvas === 'undefined') missing.push('This browser has no OffscreenCanvas. Use a current one.');
  if (!globalThis.crossOriginIsolated)
    missing.push(
      'The page is not isolated, so some work runs slower. Serve Jackplane with its own server (npm start).',
    );
  return missing;
}

interface Thread<T> {
  worker: Worker;
  api: Comlink.Remote<T>;
}
interface Renderer extends Thread<RenderApi> {
  mattes: MatteSender;
}
const threadOf = <T>(worker: Worker): Thread<T> => ({ worker, api: Comlink.wrap<T>(worker) });

/** How often the decoder is asked whether it still answers, while something is open in it. */
const PULSE = 5000;

export class Engine {
  readonly cache: FrameCache;
  private renders: Renderer[] = [];
  private readonly queue = new Queue<Renderer>([]);
  private decode!: Thread<DecodeApi>;
  /** writes and looks into files; begun when first needed */
  private encoder: Thread<EncodeApi> | null = null;
  private filer: Thread<FilesApi> | null = null;
  /** how many projects and jobs have each stock item open */
  private readonly users = new Users();
  /** what is open in the decoder, to be opened again in a new one */
  private readonly open = new Map<string, OpenFile>();
  private readonly sounds = new Sounds(this.open, () => {
    const { api, worker } = threadOf<SoundApi>(
      new Worker(new URL('./workers/sound.worker.ts', import.meta.url), { type: 'module' }),
    );
    return { api, terminate: () => worker.terminate() };
  });
  readonly mix = this.sounds.mix;
  /** follows patterns; begun when first needed */
  readonly tracks = new TrackRunner(async () => {
    const thread = threadOf<TrackApi>(
      new Worker(new URL('./workers/track.worker.ts', import.meta.url), { type: 'module' }),
    );
    const port = await connected(this.decode.api);
    await thread.api.start(this.module, this.budget.arena, Comlink.transfer(port, [port]));
    return { api: thread.api, terminate: () => thread.worker.terminate() };
  });
  private reading: string | null = null;
  private rendering = false;
  private resting: Promise<void> | null = null;
  /** frames that are being computed, by what they are known by */
  private readonly inWork = new Map<string, { wish: Wish; frame: Promise<ShownFrame> }>();

  private constructor(
    private readonly module: WebAssembly.Module,
    private readonly budget: Budget,
  ) {
    this.cache = new FrameCache(budget.cache);
  }

  static async start(): Promise<Engine> {
    carryErrors();
    const module = await WebAssembly.compile(await (await fetch(kernelsUrl)).arrayBuffer());
    const { deviceMemory } = navigator as Navigator & { deviceMemory?: number };
    const engine = new Engine(module, budgetFor(deviceMemory, navigator.hardwareConcurrency));
    await engine.makeDecoder();
    await engine.queue.replace(() => engine.makeRenderers());
    setInterval(() => void engine.feelPulse(), PULSE);
    return engine;
  }

  get workers(): number {
    return this.renders.length;
  }

  private get files(): Thread<FilesApi> {
    return (this.filer ??= threadOf(
      new Worker(new URL('./workers/files.worker.ts', import.meta.url), { type: 'module' }),
    ));
  }
  private get encode(): Thread<EncodeApi> {
    return (this.encoder ??= threadOf(
      new Worker(new URL('./workers/encode.worker.ts', import.meta.url), { type: 'module' }),
    ));
  }

  private async makeDecoder(): Promise<void> {
    this.decode = threadOf(new Worker(new URL('./workers/decode.worker.ts', import.meta.url), { type: 'module' }));
    this.decode.worker.addEventListener('message', ({ data }: MessageEvent<Partial<DecoderNews>>) => {
      if (data?.reading !== undefined) this.reading = data.reading;
    });
    await this.decode.api.start(this.budget.decoded);
  }

  private async makeRenderers(): Promise<Renderer[]> {
    return (this.renders = await Promise.all(
      Array.from({ length: this.budget.workers }, async () => {
        const thread = threadOf<RenderApi>(
          new Worker(new URL('./workers/render.worker.ts', import.meta.url), { type: 'module' }),
        );
        const port = await connected(this.decode.api);
        await thread.api.start(this.module, this.budget.arena, Comlink.transfer(port, [port]));
        return { ...thread, mattes: new MatteSender((mattes) => thread.api.keepMattes(mattes)) };
      }),
    ));
  }

  /** A decoder that does not answer any more is replaced; what it was reading is not opened in the new one. */
  private async feelPulse(): Promise<void> {
    if (!this.open.size) return;
    const dead = this.decode;
    const alive = await withPatience(
      () => dead.api.pulse(),
      PATIENCE,
      () => new Error('dead'),
    ).then(
      () => true,
      () => false,
    );
    if (alive || dead !== this.decode) return;
    const stuck = this.reading;
    dead.worker.terminate();
    await this.makeDecoder();
    for (const render of this.renders) {
      const port = await connected(this.decode.api);
      await render.api.connectDecoder(Comlink.transfer(port, [port]));
    }
    this.tracks.rest();
    for (const [id, { file, name }] of this.open) {
      if (id === stuck) await this.decode.api.refuse(id, name);
      else await this.decode.api.open(id, file, name);
    }
  }

  /** Opens stock for one more user: copies of a project share the ids of their stock. */
  async openStock(id: string, file: Blob, name: string): Promise<void> {
    if (this.users.take(id)) await this.unlock(id, file, name);
  }
  /** Another file takes the place of the one that is open, for all its users. */
  async replaceStock(id: string, file: Blob, name: string): Promise<void> {
    if (!this.users.has(id)) this.users.take(id);
    await this.shut(id);
    await this.unlock(id, file, name);
  }
  /** The file of stock that is open. @throws JackplaneError missing-media */
  fileOf(id: string, name: string): Promise<Blob> {
    return this.decode.api.file(id, name);
  }
  /** Closes it when this was its last user. */
  async closeStock(id: string): Promise<void> {
    if (this.users.leave(id)) await this.shut(id);
  }
  private unlock(id: string, file: Blob, name: string): Promise<void> {
    this.open.set(id, { file, name });
    // what is being computed may still miss it
    this.inWork.clear();
    return this.decode.api.open(id, file, name);
  }
  private async shut(id: string): Promise<void> {
    this.open.delete(id);
    await Promise.all([this.decode.api.close(id), this.sounds.close(id)]);
  }

  /** Looks into a file. One that keeps the worker busy without getting on is given up, and the worker replaced. */
  probe = (file: File, progress: (share: number) => void): Promise<Probe> =>
    this.lookInto(file, (api, alive) =>
      api.probe(
        file,
        Comlink.proxy((share: number) => (alive(), progress(share))),
      ),
    );
  /** The picture and the peaks of a file whose facts are known. */
  glance = (file: File): Promise<Pick<Probe, 'poster' | 'peaks'>> => this.lookInto(file, (api) => api.glance(file));

  private async lookInto<T>(
    file: File,
    work: (api: Comlink.Remote<FilesApi>, alive: () => void) => Promise<T>,
  ): Promise<T> {
    const { worker, api } = this.files;
    const late = tooLong(file.name);
    try {
      return await withPatience(
        (alive) => work(api, alive),
        PATIENCE,
        () => late,
      );
    } catch (error) {
      if (error === late && worker === this.filer?.worker) {
        worker.terminate();
        this.filer = null;
      }
      throw error;
    }
  }

  unpack = (file: File): Promise<OpenedProject> => this.files.api.unpack(file);
  pack = (project: Project, media: ReadonlyMap<string, Blob>): Promise<Blob> => this.files.api.pack(project, media);

  /** A frame from the cache, or computed. @param wish how urgent it is, and by whom it is done */
  frame(plan: FramePlan, look: Look, wish: Wish = SHOWN): Promise<ShownFrame> {
    const key = frameKey(plan, look);
    const held = this.cache.get(key);
    if (held) return Promise.resolve(held);
    const before = this.inWork.get(key);
    if (before) {
      this.queue.urge(before.wish, wish);
      return before.frame;
    }
    const own = { ...wish };
    const frame = this.computed(plan, look, key, own).finally(() => {
      if (this.inWork.get(key)?.wish === own) this.inWork.delete(key);
    });
    this.inWork.set(key, { wish: own, frame });
    return frame;
  }

  private async computed(plan: FramePlan, look: Look, key: string, wish: Wish): Promise<ShownFrame> {
    const shown = await this.queue.run(wish, async ({ api, mattes }) => {
      await mattes.forFrame(plan);
      return api.show(plan, look, wish.home === SHOWN.home);
    });
    if (!shown.problems.length) this.cache.put(key, shown);
    return this.cache.get(key) ?? shown;
  }

  /** Work on layers, done by the worker that follows the dials: it holds their pictures. */
  private look<T>(
    layers: readonly (LayerPlan | null | undefined)[],
    work: (api: Comlink.Remote<RenderApi>, mattes: MatteSender) => Promise<T>,
  ): Promise<T> {
    return this.queue.run(LOOK, async ({ api, mattes }) => {
      await mattes.forLayers(layers.filter((layer) => !!layer));
      return work(api, mattes);
    });
  }

  thumbnails = (layer: LayerPlan, width: number, height: number): Promise<ImageBitmap[]> =>
    this.look([layer], (api) => api.thumbnails(layer, width, height));
  /** @param layer null for what needs no picture */
  measure = <N extends MeasureName>(layer: AlonePlan | null, name: N, options: OptionsOf<N>): Promise<ResultOf<N>> =>
    this.look([layer], async (api, mattes) => {
      if (name === 'coverage') await mattes.forCoverages([options as OptionsOf<'coverage'>]);
      return (await api.measure(layer, name, options as never)) as ResultOf<N>;
    });
  select = (
    layer: LayerPlan,
    hints: readonly SelectHint[],
    carry: { layer: LayerPlan; matte: DrawnMatte } | null,
  ): Promise<{ matte: DrawnMatte; confidence: number }> =>
    this.look([layer, carry?.layer], (api) => api.select(layer, hints, carry));
  pixels = (plan: FramePlan): Promise<Uint8ClampedArray<ArrayBuffer>> =>
    this.look([], async (api, mattes) => {
      await mattes.forFrame(plan);
      return api.bytes(plan);
    });
  png = (plan: FramePlan): Promise<Blob> =>
    this.look([], async (api, mattes) => {
      await mattes.forFrame(plan);
      return new Blob([await api.png(plan)], { type: 'image/png' });
    });
  /** A frame for a file. Two at once in each worker: one waits for its clips while the other is computed. */
  private async written(plan: FramePlan, alpha: boolean, signal: AbortSignal): Promise<Uint8Array<ArrayBuffer>> {
    const data = await this.queue.run({ priority: 'render', depth: 2, signal }, async ({ api, mattes }) => {
      await mattes.forFrame(plan);
      return api.yuv(plan, alpha);
    });
    return Comlink.transfer(data, [data.buffer]);
  }

  async render(
    project: Project,
    shot: ShotId,
    settings: RenderSettings,
    progress: (done: number) => void,
  ): Promise<RenderResult> {
    this.rendering = true;
    nameBigData(project);
    // frames that were asked for ahead are not computed for a file that is given up
    const end = new AbortController();
    const ask = (plan: FramePlan, alpha: boolean) => this.written(plan, alpha, end.signal);
    try {
      const calls = [Comlink.proxy(progress), Comlink.proxy(ask), Comlink.proxy(this.mix)] as const;
      return await this.encode.api.render(project, shot, settings, ...calls);
    } finally {
      end.abort();
      this.rendering = false;
      if (!this.open.size) await this.rest();
    }
  }
  cancelRender = async (): Promise<void> => this.encoder?.api.cancel();

  /** Gives back what a closed project used: finished frames, and the workers' memory, which can only grow. While a render runs its workers stay. */
  rest(): Promise<void> {
    return (this.resting ??= this.giveBack().finally(() => (this.resting = null)));
  }
  private async giveBack(): Promise<void> {
    this.cache.clear();
    if (this.rendering || this.open.size) return;
    this.encoder?.worker.terminate();
    this.encoder = null;
    this.tracks.rest();
    const old = await this.queue.replace(() => this.makeRenderers());
    old.forEach(({ worker }) => worker.terminate());
    await this.decode.api.rest();
  }
}

export const frameKey = (plan: FramePlan, look: Look): string => `${look} ${plan.key}`;

async function connected(worker: { connect(port: MessagePort): Promise<void> }): Promise<MessagePort> {
  const { port1, port2 } = new MessageChannel();
  await worker.connect(Comlink.transfer(port1, [port1]));
  return port2;
}

let engine: Promise<Engine> | null = null;

/** The one engine of this page, started at first use. @throws JackplaneError unsupported */
export function useEngine(): Promise<Engine> {
  engine ??= Engine.start().catch((error: unknown) => {
    engine = null;
    throw new JackplaneError(
      'unsupported',
      `The workers could not be started (${(error as Error).message}).`,
      'Reload the page; if it stays so, use a current browser.',
    );
  });
  return engine;
}

/** The fonts that a style's letters are looked for in, for setting text beside the workers. */
export async function fontsFor(style: LineStyle): Promise<Font[]> {
  const engine = await useEngine();
  return (await import('./workers/fonts')).fontsFor(style, (stock, name) => engine.fileOf(stock, name));
}
