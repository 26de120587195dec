// Walks a plan: what of it is held already, what has to be computed, and in which order. The computing is the backend's.
import { sentenceOf } from '../base/errors';
import { hash } from '../base/hash';
import type { CoveragePlan } from '../masks/coverage';
import { paramsOf } from '../passes/registry';
import type { Rect } from '../picture/rect';
import { coveragesOf, picturesIn } from '../plan/asked';
import { joins } from '../plan/passes';
import type { AlonePlan, CompositePlan, FramePlan, LayerPlan, PassPlan, Tables } from '../plan/types';
import type { DrawnSource } from '../sources/define';
import { sourceOf } from '../sources/registry';
import type { Backend, Fetch, Held, Keep } from './backend';
import type { PictureCache } from './cache';
import { filled } from './filled';
import { remade, sourcePicture } from './sources';

/** A layer that could not be computed, and why. */
export interface Problem {
  layer: string;
  sentence: string;
  /** it was drawn all the same, as well as could be */
  drawn?: true;
}

/** What a frame is computed with. */
interface Job {
  tables: Tables;
  keep: Keep;
  problems: Problem[];
}
/** What is needed to draw a layer, all of it held by the frame. */
interface Ready<P extends Held> {
  /** none of an adjustment layer */
  picture: P | null;
  matte: P | null;
  moments: Map<string, P>;
}
/** So many layers are computed before they are drawn. */
const AHEAD = 6;
const NOTHING: Tables = { mattes: {}, lines: {}, shots: {} };

/** Computes plans. One executor per worker; its cache makes a turned dial cost only what comes after it. */
export class Executor<P extends Held> {
  constructor(
    readonly backend: Backend<P>,
    private readonly fetch: Fetch,
  ) {}

  get cache(): PictureCache<P> {
    return this.backend.cache;
  }

  /**
   * The composite of a plan: shot-sized, display-encoded, premultiplied, owned by the caller.
   * Layers that cannot be computed show as a striped placeholder and are listed in `problems`.
   */
  async frame(plan: FramePlan, keep: Keep = 'every', problems: Problem[] = []): Promise<P> {
    const picture = await this.composite(plan, { tables: plan, keep, problems });
    const { seen } = plan;
    return seen ? remade(this.backend, picture, (whole) => this.backend.part(whole, seen)) : picture;
  }

  private async composite(plan: CompositePlan, job: Job): Promise<P> {
    const { keep, problems } = job;
    const { backend } = this;
    const keys = compositeKeys(plan);
    let first = plan.layers.length;
    while (first > 0 && !this.cache.has(keys[first - 1]!)) first--;
    const drawn = plan.layers.slice(first);
    const start = first > 0 ? this.cache.get(keys[first - 1]!) : undefined;
    const held = new Set<P>(start ? [start] : []);
    const hold = <T extends P | null>(picture: T): T => (picture && held.add(picture), picture);
    const letGo = (picture: P | null) => void (picture && held.delete(picture) && picture.release());
    // the next few layers are computed while this one is drawn, so that many of them do not need memory all at once
    const begun: Promise<Ready<P>>[] = [];
    const begin = (layer: LayerPlan | undefined): void => {
      if (!layer) return;
      const work = this.ready(layer, plan, job, hold);
      work.catch(() => undefined); // it is waited for below, or at the end
      begun.push(work);
    };
    try {
      drawn.slice(0, AHEAD).forEach(begin);
      const linear = plan.light === 'linear';
      let under = start ?? hold(backend.ground(plan.part ?? wholeOf(plan), plan.background, linear));
      const own = () => {
        if (!under.shared) return;
        const copy = hold(backend.part(under, under.rect));
        letGo(under);
        under = copy;
      };
      for (const [i, layer] of drawn.entries()) {
        const { picture, matte, moments } = await begun[i]!;
        begin(drawn[i + AHEAD]);
        own();
        const shot = { w: plan.width, h: plan.height };
        const ground = { shot, linear, matte, moments };
        if (picture) backend.blend(under, layer, picture, ground);
        else backend.adjust(under, layer, ground);
        [picture, matte, ...moments.values()].forEach(letGo);
        if (keep === 'every' && !problems.length) this.cache.put(keys[first + i]!, under);
      }
      if (linear) {
        own();
        backend.encode(under);
      }
      held.delete(under);
      return under;
    } finally {
      // none comes back to a frame that has failed meanwhile
      await Promise.allSettled(begun);
      held.forEach((picture) => picture.release());
    }
  }

  /** A layer's picture and matte, both held by the frame. An adjustment layer has no picture. */
  private async ready(
    layer: LayerPlan,
    plan: CompositePlan,
    job: Job,
    hold: <T extends P | null>(picture: T) => T,
  ): Promise<Ready<P>> {
    await this.fetchCoverage([...layer.after.flatMap(coveragesOf), ...layer.cover]);
    const picture = layer.source.kind === 'below' ? null : hold(await this.shown(layer, job));
    const matte = layer.matte && hold(await this.matte(layer.matte, plan, job));
    const moments: Map<string, P> = new Map();
    try {
      await this.fetchMoments(picture ? layer.after : layer.passes, job, moments);
    } finally {
      moments.forEach(hold);
    }
    return { picture, matte, moments };
  }

  /** What a matte layer covers of the shot: floats, one for each of the shot's pixels, in the memory of a picture owned by the caller. */
  private async matte(
    { key: named, by, invert }: NonNullable<LayerPlan['matte']>,
    plan: CompositePlan,
    job: Job,
  ): Promise<P> {
    const { problems, tables } = job;
    const layer = tables.mattes[named]!;
    const key = hash(JSON.stringify(['matte', named, by, invert, plan.width, plan.height]));
    const cached = this.cache.get(key);
    if (cached) return cached;
    const own = layer.matte && (await this.matte(layer.matte, plan, job));
    let picture: P | null = null;
    const moments: Map<string, P> = new Map();
    try {
      await this.fetchCoverage(layer.after.flatMap(coveragesOf));
      picture = await this.shown(layer, job);
      await this.fetchMoments(layer.after, job, moments);
      const shown = picture;
      const ground = { shot: { w: plan.width, h: plan.height }, linear: false, matte: own, moments };
      const plane = this.backend.guarded(() => this.backend.matte(layer, shown, { by, invert }, ground));
      if (!problems.length) this.cache.put(key, plane);
      return plane;
    } finally {
      [picture, own, ...moments.values()].forEach((held) => held?.release());
    }
  }

  /** A layer's picture after its passes, in its source's space, owned by the caller. When it cannot be computed, a placeholder. */
  async layer(
    layer: LayerPlan | AlonePlan,
    keep: Keep = 'every',
    problems: Problem[] = [],
    given?: Tables,
  ): Promise<P> {
    const tables = given ?? ('tables' in layer ? layer.tables : NOTHING);
    const picture = await this.shown(layer, { tables, keep, problems });
    return this.whole(layer, layer.passes, 'all', picture);
  }

  /** @param picture given up */
  private whole(layer: LayerPlan, before: readonly PassPlan[], next: readonly PassPlan[] | 'all', picture: P): P {
    const rect = filled(layer, before, next, picture.rect);
    return rect ? remade(this.backend, picture, (held) => this.backend.part(held, rect)) : picture;
  }

  /** The same, which may leave out what is clear. */
  private async shown(layer: LayerPlan, job: Job): Promise<P> {
    const { problems } = job;
    try {
      await this.tellMissing(layer, problems);
      return layer.part ? await this.partOfLayer(layer, layer.part, job) : await this.line(layer, job);
    } catch (error) {
      problems.push({ layer: layer.name, sentence: sentenceOf(error) });
      return this.backend.placeholder(layer.size);
    }
  }

  /** A layer's picture after its passes. */
  private async line(layer: LayerPlan, job: Job, source = () => this.source(layer, job)): Promise<P> {
    const { keep } = job;
    const moments: Map<string, P> = new Map();
    const prepare = async (from: number) => {
      await this.prepare(layer, from);
      await this.fetchMoments(layer.passes.slice(from), job, moments);
    };
    try {
      let done = layer.passes.length;
      while (done > 0 && (joins(layer.passes[done]) || !this.cache.has(layer.passes[done - 1]!.key))) done--;
      await prepare(done);
      // it may have been dropped while the rest was fetched
      const cached = done > 0 ? this.cache.get(layer.passes[done - 1]!.key) : undefined;
      if (!cached && done > 0) await prepare(0);
      const [before, next] = cached ? [layer.passes.slice(0, done), layer.passes.slice(done)] : [[], layer.passes];
      const picture = this.whole(layer, before, next, cached ?? (await source()));
      return this.backend.passes(next, picture, layer.size, (key) => moments.get(key), keep);
    } finally {
      moments.forEach((picture) => picture.release());
    }
  }

  /** A part of a layer's picture: whole up to a pass, and from there on only what is needed. */
  private async partOfLayer(
    { part: _, ...layer }: LayerPlan,
    { rect, from }: NonNullable<LayerPlan['part']>,
    job: Job,
  ): Promise<P> {
    const before = layer.passes.slice(0, from);
    const whole = { ...layer, passes: before, key: before.at(-1)?.key ?? layer.sourceKey };
    const cut = {
      ...layer,
      sourceKey: hash(JSON.stringify([whole.key, rect])),
      passes: layer.passes.slice(from),
      part: { rect, from: 0 },
    };
    return this.line(cut, job, async () => {
      const picture = await this.line(whole, job);
      return remade(this.backend, picture, (held) => this.backend.part(held, rect));
    });
  }

  /** Computes the pictures from other moments and of other layers that passes ask for, each once. @param into owns them */
  private async fetchMoments(passes: readonly PassPlan[], job: Job, into: Map<string, P>): Promise<void> {
    const asked = passes.flatMap(({ moments, type, values }) => [
      ...(moments ?? []),
      ...picturesIn(paramsOf(type), values),
    ]);
    for (const key of new Set(asked)) if (key !== null && !into.has(key)) into.set(key, await this.further(key, job));
  }
  /** A further picture of the plan, owned by the caller. @param close without what is clear around something drawn: its picture is as large as the shot only so that it can be placed */
  private async further(key: string, job: Job, close = false): Promise<P> {
    const { lines, shots } = job.tables;
    const line = lines[key];
    if (!line) return this.composite(shots[key]!, job);
    const picture = await this.layer(line, job.keep, job.problems, job.tables);
    return close && line.source.kind === 'drawn'
      ? remade(this.backend, picture, (held) => this.backend.trimmed(held))
      : picture;
  }

  /** Fetches what the passes from one on need beside the picture. */
  private async prepare(layer: LayerPlan, from: number): Promise<void> {
    const passes = layer.passes.slice(from);
    await this.fetchCoverage(passes.flatMap(coveragesOf));
    await this.backend.preparePlates(passes, layer.size);
  }
  private fetchCoverage = (plans: readonly CoveragePlan[]): Promise<void> => this.backend.prepareMasks(plans);

  private async source(layer: LayerPlan, job: Job): Promise<P> {
    const { keep } = job;
    const cached = this.cache.get(layer.sourceKey);
    if (cached) return cached;
    const picture = await sourcePicture(layer, {
      ...{ backend: this.backend, fetch: this.fetch },
      line: (key) => this.line(job.tables.lines[key]!, job),
      further: (key) => this.further(key, job, true),
      sizeOf: (key) => job.tables.lines[key]!.size,
      shot: (key) => this.composite(job.tables.shots[key]!, job),
    });
    if (keep === 'every' || !layer.passes.length) this.cache.put(layer.sourceKey, picture);
    return picture;
  }

  /** Says which letters of a layer's text its font does not have; also when its picture is held already. */
  private async tellMissing({ source, name }: LayerPlan, problems: Problem[]): Promise<void> {
    if (source.kind !== 'drawn') return;
    const { lines } = sourceOf(source.type) as DrawnSource;
    const missing = lines ? await this.backend.prepareLines(lines(source.values as never)) : '';
    const sentence = `The font of “${name}” has no “${missing}”. Choose another font, or other letters.`;
    if (missing) problems.push({ layer: name, sentence, drawn: true });
  }
}

const wholeOf = ({ width, height }: CompositePlan): Rect => ({ x: 0, y: 0, w: width, h: height });

/** Names the composite after each layer by everything that went into it. */
function compositeKeys(plan: CompositePlan): string[] {
  let key = JSON.stringify([plan.width, plan.height, plan.background, plan.light, plan.part]);
  return plan.layers.map((layer) => (key = hash(`${key} ${layer.drawn}`)));
}
