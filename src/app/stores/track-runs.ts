import { defineStore } from 'pinia';
import { watch } from 'vue';
import { rangeOf } from '../../core/document/edits/markers';
import { writeSamples } from '../../core/document/edits/tracks';
import type { Point } from '../../core/track/motion';
import { PLAIN, type Run, type RunEnd } from '../../core/track/run';
import type { Track } from '../../core/document/track';
import { momentOf } from '../../core/place/moment';
import { planCoverage } from '../../core/plan/masks';
import { pointsAt, sampleAt, samplesOf, type Sample } from '../../core/track/samples';
import type { Glimpse } from '../../core/track/tracker';
import { useEngine } from '../../engine/client';
import type { RunNews } from '../../engine/types';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useNotices } from './notices';
import { usePlayer } from './player';
import { usePreview } from './preview';
import { useProject } from './project';
import { useTracking, WEAK } from './tracking';

export type Way = 'forward' | 'backward' | 'both';
/** How far a run goes. */
export type Extent = 'clip' | 'range' | 'frame';

/** Milliseconds between two frames that are shown of a run: showing them takes the processor from measuring. */
const LOOK_EVERY = 300;
/** Frames for which a lost pattern is looked for. */
const PATIENCE = 48;
/** A run goes on only from a frame that is as sure as this, so that it does not learn what hides its pattern. */
const SURE = 0.8;
/** Frames for which a lost pattern is taken to go on as it went, and how sure that is. */
const PREDICTED = { frames: 24, confidence: 0.1 };

/** @param masked whether it looks only where masks say @param searched whether it was looked for in all of the picture */
function sayingOf(end: RunEnd, way: 1 | -1, masked: boolean, searched: boolean): string | null {
  if (end.why === 'plain')
    return `${masked ? 'The masks of where it looks leave too little of it. ' : ''}There is too little in this pattern to find it again: its light changes by ${(end.strength * 100).toFixed(2)} % a pixel, and ${(PLAIN * 100).toFixed(1)} % is the least. Draw it about a corner, a spot or print.`;
  if (end.why === 'lost') {
    const onwards = `from frame ${end.frame} of the clip ${way > 0 ? 'on' : 'back'}`;
    return searched ? `Not found anywhere in the picture ${onwards}.` : `Lost ${onwards}.`;
  }
  if (end.why === 'outside') return `It leaves the picture at frame ${end.frame} of the clip.`;
  if (end.why === 'cut') return `The clip is cut at frame ${end.frame}; there the track ends.`;
  return end.why === 'stopped' ? 'Stopped; what was measured is kept.' : null;
}

/** Runs of the chosen track. */
export const useTrackRuns = defineStore('trackRuns', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const notices = useNotices();
  const player = usePlayer();
  const preview = usePreview();
  const store = useProject();
  const tracking = useTracking();
  /** when the playhead followed a run last */
  let looked = 0;
  let stopper: AbortController | null = null;
  const stop = (): void => stopper?.abort();

  // a project that is closed takes its run along
  watch(
    () => store.project?.id,
    () => {
      stop();
      tracking.running = null;
      tracking.live = new Map();
    },
  );

  /** The last frame of the clip that a run one way may reach. */
  function extentOf(way: 1 | -1, extent: Extent, from: number): number {
    const last = tracking.frames - 1;
    if (extent === 'frame') return Math.min(last, Math.max(0, from + way));
    if (extent === 'clip' || !bench.shot) return way > 0 ? last : 0;
    const range = rangeOf(bench.shot);
    return tracking.frameOf(way > 0 ? range.to - 1 : range.from);
  }
  /** The frame that a run begins on: that of the playhead where it is known well, else the last sure one on the way to it, else the one on which it was drawn. */
  function beginning(way: 1 | -1): number {
    const { samples, frame, track } = tracking;
    if ((sampleAt(samples, frame)?.confidence ?? 0) >= WEAK) return frame;
    return lastBefore(frame, way, SURE) ?? track!.start;
  }
  /** The last frame on the way to another one that is known at least so surely. */
  function lastBefore(frame: number, way: 1 | -1, confidence: number): number | undefined {
    const { first, rows } = tracking.samples;
    const known = rows.flatMap((row, i) =>
      row && row.confidence >= confidence && way * (frame - first - i) > 0 ? [first + i] : [],
    );
    return way > 0 ? known.at(-1) : known[0];
  }

  /** Where a track looks on each frame of the clip, by masks of the chosen layer; null when it looks everywhere. */
  function looking({ looks }: Track): ((frame: number) => Promise<Uint8Array | null>) | null {
    const { layer, shot } = bench;
    const { shotFrames, size } = tracking;
    if (!layer || !shot || !looks?.masks.length) return null;
    const shown = [...shotFrames.keys()].sort((a, b) => a - b);
    let last: { key: string; values: Uint8Array } | null = null;
    return async (frame) => {
      // outside of what the layer shows its masks stay as they are at its ends
      const near = Math.min(Math.max(frame, shown[0]!), shown.at(-1)!);
      const moment = momentOf(store.current(), shot, layer, shotFrames.get(near) ?? playhead.frame);
      const plan = { ...planCoverage(moment, looks.masks, size), side: looks.side };
      if (!plan.masks.length) return null;
      const key = JSON.stringify(plan);
      if (last?.key !== key) last = { key, values: (await (await useEngine()).measure(null, 'coverage', plan)).values };
      return last.values;
    };
  }

  /** Measures from the playhead on. Cancelling keeps what was measured. @param everywhere look for what was lost in all of the picture at the playhead, and go on from there */
  async function run(way: Way, extent: Extent, everywhere = false): Promise<void> {
    const { track: of, size } = tracking;
    const where = tracking.clipNow();
    if (!of || !where || tracking.running || store.readOnly) return;
    if (player.playing) player.stop();
    const own = (stopper = new AbortController());
    tracking.live = new Map();
    delete tracking.ends[of.id];
    const ways: (1 | -1)[] = way === 'both' ? [1, -1] : [way === 'forward' ? 1 : -1];
    // both ways begin on the same frame, whatever the first of them finds
    const begins = ways.map((direction) => beginning(direction));
    const fixed = new Map(of.fixed.map((at) => [at, sampleAt(samplesOf(of), at)?.points ?? []] as const));
    preview.touching = true;
    try {
      const sayings: string[] = [];
      let lost: { frame: number; way: 1 | -1 } | null = null;
      for (const [i, direction] of ways.entries()) {
        const from = begins[i]!;
        const to = extentOf(direction, extent, from);
        if (to === from || own.signal.aborted) continue;
        const resume = everywhere && direction * (tracking.frame - from) > 0 ? tracking.frame : undefined;
        const frames = Math.abs(to - (resume ?? from));
        tracking.running = { track: of.id, done: 0, of: frames, way: direction };
        const plan: Run = {
          kind: of.kind,
          size,
          patterns: tracking.patternsAt(of, from),
          reach: of.reach,
          from,
          to,
          fixed: new Map([...fixed].filter(([at]) => at !== from)),
          patience: PATIENCE + Math.abs(tracking.frame - from),
          ...(resume !== undefined && { resume }),
        };
        const { tracks } = await useEngine();
        const hear = (news: RunNews) => heard(news.measured, news.glimpse);
        const end = await tracks.run(where, plan, hear, own.signal, looking(of));
        const searched = end.why === 'lost' && end.frame === resume;
        const saying = sayingOf(end, direction, !!of.looks?.masks.length, searched);
        if (saying) sayings.push(saying);
        if (end.why === 'lost') lost ??= { frame: end.frame, way: direction };
        if (end.why === 'plain') tracking.live = new Map();
      }
      if (sayings.length) tracking.ends[of.id] = { saying: sayings.join(' '), lost };
    } catch (error) {
      if (!own.signal.aborted) notices.problem(error);
    } finally {
      preview.touching = false;
      // its last frame is shown first: the step of the history is work by itself
      await new Promise(requestAnimationFrame);
      if (stopper === own && tracking.running) tracking.keep(of.id);
    }
  }
  function heard(measured: readonly { frame: number; sample: Sample | null }[], seen: Glimpse | null): void {
    const { running } = tracking;
    if (!running) return;
    tracking.live = new Map([...tracking.live, ...measured.map(({ frame, sample }) => [frame, sample] as const)]);
    running.done = Math.min(running.of, running.done + measured.length);
    if (seen) tracking.glimpse = seen;
    const now = performance.now();
    // the playhead stays where it is while another layer is looked at
    if (tracking.trackId !== running.track || (now - looked < LOOK_EVERY && running.done < running.of)) return;
    looked = now;
    const last = tracking.shotFrames.get(measured.at(-1)!.frame);
    if (last !== undefined) playhead.seek(last);
  }

  /** Lets the points go on behind the last frame that is known before they were lost, as they went, for a while. */
  function predict(): void {
    const { samples, frames, track } = tracking;
    const lost = tracking.ends[track?.id ?? '']?.lost;
    if (!lost) return;
    const { way } = lost;
    const last = lastBefore(lost.frame, way, 0);
    if (last === undefined) return;
    const before = sampleAt(samples, last);
    const earlier = pointsAt(samples, last - 5 * way);
    if (!before || !earlier) return;
    const added = new Map<number, Sample>();
    for (let by = 1; added.size < PREDICTED.frames; by++) {
      const at = last + by * way;
      const there = sampleAt(samples, at);
      if (at < 0 || at >= frames || (there && there.confidence >= WEAK)) break;
      // further than the last time
      if (there) continue;
      const points = before.points.map(([x, y], i): Point => [
        x + ((x - earlier[i]![0]) / 5) * by,
        y + ((y - earlier[i]![1]) / 5) * by,
      ]);
      added.set(at, { confidence: PREDICTED.confidence, points });
    }
    if (added.size) tracking.edit((id) => writeSamples(store.current(), id, added, 'Predict'));
  }

  /** Places of the clip's frame at the playhead that can be found again well, the best first. */
  async function findGood(most: number): Promise<readonly Point[]> {
    const where = tracking.clipNow();
    if (!where) return [];
    const { w, h } = tracking.size;
    try {
      return await (await useEngine()).tracks.findPoints(where, tracking.frame, most, Math.min(w, h) / 12);
    } catch (error) {
      notices.problem(error);
      return [];
    }
  }

  return { run, stop, predict, findGood };
});
