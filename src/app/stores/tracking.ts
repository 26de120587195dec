import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  addTrack,
  freeSample,
  mendSample,
  redrawTrack,
  removeTrack,
  renameTrack,
  setLooks,
  setReach,
  writeSamples,
} from '../../core/document/edits/tracks';
import { bakeFollow, followersOf } from '../../core/document/edits/follow';
import type { Edit } from '../../core/document/edit';
import { stockOf, type Layer, type LayerId, type ShotId } from '../../core/document/schema';
import { quadAbout, TRACK_TITLES, type Quad, type Track, type TrackId } from '../../core/document/track';
import { momentOf } from '../../core/place/moment';
import { trackFrameAt } from '../../core/time/track-frame';
import { framesIn } from '../../core/time/rate';
import { mapBetween, type Point } from '../../core/track/motion';
import { drawnPoints } from '../../core/track/run';
import {
  NOTHING,
  pointsAt,
  samplesOf,
  withSamples,
  type Sample,
  type Samples,
  type TrackKind,
} from '../../core/track/samples';
import type { Glimpse } from '../../core/track/tracker';
import { project as projected } from '../../core/picture/matrix';
import type { Clip } from '../../engine/types';
import { newId } from '../base/ids';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useMasking } from './masking';
import { useProject } from './project';
import { useRows } from './rows';

interface Running {
  track: TrackId;
  done: number;
  of: number;
  way: 1 | -1;
}
/** How far keyframes may be off what they are written from, in pixels and degrees. */
export const BAKED = 0.05;
/** Below this a frame counts as weak. */
export const WEAK = 0.5;

/** What is chosen of the tracks, and their runs. */
export const useTracking = defineStore('tracking', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const masking = useMasking();
  const store = useProject();

  const open = ref(false);
  const trackId = ref<TrackId | null>(null);
  const running = ref<Running | null>(null);
  /** what the run has measured so far */
  const live = shallowRef<ReadonlyMap<number, Sample | null>>(new Map());
  const glimpse = shallowRef<Glimpse | null>(null);
  /** how the last run of each track ended, and where it lost its pattern */
  const ends = ref<Record<string, { saying: string; lost: { frame: number; way: 1 | -1 } | null }>>({});

  /** The clip that the chosen layer shows, if it moves. */
  const clip = computed(() => {
    const id = bench.layer && stockOf(bench.layer);
    const item = id && store.project?.stock.find((entry) => entry.id === id);
    return item && item.kind === 'video' && item.facts.width && item.facts.height ? item : null;
  });
  const size = computed(() => ({ w: clip.value?.facts.width ?? 1, h: clip.value?.facts.height ?? 1 }));
  const tracks = computed(() => (store.project?.tracks ?? []).filter((item) => item.stock === clip.value?.id));
  const track = computed<Track | null>(() => tracks.value.find((item) => item.id === trackId.value) ?? null);
  /** The samples of the chosen track, with what is being measured. */
  const samples = computed<Samples>(() => {
    if (!track.value) return { first: 0, rows: [] };
    const kept = samplesOf(track.value);
    return running.value?.track === track.value.id ? withSamples(kept, live.value) : kept;
  });
  const rate = computed(() => {
    const own = clip.value?.facts.rate;
    return own && own !== 'variable' ? own : (bench.shot?.rate ?? { num: 24, den: 1 });
  });
  const frames = computed(() => framesIn(clip.value?.facts.seconds ?? 0, track.value?.rate ?? rate.value));
  /** The frame of the clip that the chosen layer shows at the playhead, or at another frame of the shot. */
  const frameOf = (shotFrame: number): number =>
    bench.layer && bench.shot
      ? Math.min(
          Math.max(0, frames.value - 1),
          Math.max(
            0,
            Math.floor(
              trackFrameAt(
                momentOf(store.current(), bench.shot, bench.layer, shotFrame),
                track.value?.rate ?? rate.value,
              ) + 1e-6,
            ),
          ),
        )
      : 0;
  const frame = computed(() => frameOf(playhead.frame));
  /** The first frame of the shot on which the chosen layer shows each frame of the clip. */
  const shotFrames = computed(() => {
    const map = new Map<number, number>();
    const { start, length } = bench.layer?.span ?? { start: 0, length: 0 };
    for (let at = start; at < start + length; at++) {
      const shown = frameOf(at);
      if (!map.has(shown)) map.set(shown, at);
    }
    return map;
  });
  const points = computed(() => pointsAt(samples.value, frame.value));
  /** The chosen track's patterns as they lie at the playhead. */
  const patterns = computed<readonly Quad[]>(() => (track.value ? patternsAt(track.value, frame.value) : []));

  function patternsAt(of: Track, at: number): readonly Quad[] {
    if (at === of.start) return of.patterns;
    const drawn = drawnPoints(of.kind, size.value, of.patterns);
    const now = pointsAt(samplesOf(of), at);
    if (!drawn || !now) return of.patterns;
    return of.patterns.map((quad, i) => {
      const map = of.kind === 'pair' ? mapBetween([drawn[i]!], [now[i]!]) : mapBetween(drawn, now);
      if (!map) return quad;
      return quad.map(([x, y]): [number, number] => {
        const [u, v] = projected(map, x, y);
        return [u, v];
      }) as Quad;
    });
  }

  // what was seen of one pattern is not shown beside another
  watch(trackId, () => (glimpse.value = null));
  watch(tracks, () => {
    if (!track.value) trackId.value = tracks.value[0]?.id ?? null;
  });
  watch(
    () => [bench.chosen, bench.asked, masking.open],
    () => (open.value = false),
  );

  function show(id?: TrackId): void {
    masking.open = false;
    bench.picking = null;
    if (id) trackId.value = id;
    // after the watch that closes it
    queueMicrotask(() => (open.value = true));
  }

  const edit = (make: (id: TrackId) => Edit, gesture?: string): void => {
    if (track.value) store.edit(make(track.value.id), gesture);
  };

  /** A name that no track of the project has yet. */
  function freeName(title: string): string {
    const names = new Set((store.project?.tracks ?? []).map((item) => item.name));
    let name = title;
    for (let n = 2; names.has(name); n++) name = `${title} ${n}`;
    return name;
  }

  /** A pattern in the middle of the picture, or about some places. */
  function add(kind: TrackKind, about: readonly Point[] = []): void {
    if (!clip.value || store.readOnly) return;
    const { w, h } = size.value;
    const small = Math.max(12, Math.round(Math.min(w, h) / 30));
    const [first, second] = about;
    const patterns: Quad[] =
      kind === 'sway'
        ? [quadAbout([0, 0], w * 0.46, h * 0.46)]
        : kind === 'pair'
          ? [quadAbout(first ?? [-w / 8, 0], small, small), quadAbout(second ?? [w / 8, 0], small, small)]
          : kind === 'point'
            ? [quadAbout(first ?? [0, 0], small, small)]
            : [quadAbout(first ?? [0, 0], w / 8, h / 8)];
    const id = newId<TrackId>();
    store.edit(
      addTrack({
        id,
        name: freeName(TRACK_TITLES[kind]),
        stock: clip.value.id,
        kind,
        rate: rate.value,
        start: frame.value,
        patterns,
        reach: Math.max(8, Math.round(Math.min(w, h) / 16)),
        samples: NOTHING,
        fixed: [],
      }),
    );
    trackId.value = id;
  }

  /** The chosen layer's clip, for the worker. */
  const clipNow = (): Clip | null =>
    clip.value && {
      stock: clip.value.id,
      name: clip.value.name,
      rate: track.value?.rate ?? rate.value,
      frames: frames.value,
    };

  /** What was measured becomes one step of the history. */
  function keep(id: TrackId): void {
    const measured = live.value;
    running.value = null;
    live.value = new Map();
    if (bench.layerId) useRows().open.add(bench.layerId);
    if (measured.size && store.project?.tracks.some((item) => item.id === id))
      store.edit(writeSamples(store.current(), id, measured, 'Run'));
  }

  const draw = (drawn: readonly Quad[], gesture?: string): void =>
    edit((id) => redrawTrack(store.current(), id, { patterns: [...drawn], start: frame.value }), gesture);
  const mend = (to: readonly Point[], gesture?: string): void =>
    edit((id) => mendSample(store.current(), id, frame.value, to), gesture);
  const free = (): void => edit((id) => freeSample(store.current(), id, frame.value));
  const rename = (name: string): void => edit((id) => renameTrack(store.current(), id, name));
  const reach = (px: number, gesture?: string): void => edit((id) => setReach(store.current(), id, px), gesture);

  const look = (at: Track['looks'] | null): void => edit((id) => setLooks(store.current(), id, at));

  /** Who follows a track, by name. */
  const followers = (id: TrackId): Layer[] => [...new Set(followersOf(store.current(), id).map(({ layer }) => layer))];
  /** Deletes a track; what follows it is written as keyframes first when that is wanted. */
  function remove(id: TrackId, bake: boolean): void {
    const now = store.current();
    const byLayer = new Map<LayerId, { shot: ShotId; paths: string[] }>();
    for (const { shot, layer, path } of bake ? followersOf(now, id) : []) {
      const own = byLayer.get(layer.id) ?? { shot: shot.id, paths: [] };
      own.paths.push(path);
      byLayer.set(layer.id, own);
    }
    const bakes = [...byLayer].map(([layer, { shot, paths }]) => bakeFollow(now, { shot, layer }, paths, BAKED));
    const last = removeTrack(now, id);
    store.edit({ name: last.name, apply: (draft) => [...bakes, last].forEach((step) => step.apply(draft)) });
  }

  return {
    open,
    trackId,
    running,
    glimpse,
    ends,
    clip,
    size,
    tracks,
    track,
    samples,
    rate,
    frames,
    frame,
    shotFrames,
    clipNow,
    points,
    patterns,
    show,
    add,
    freeName,
    live,
    frameOf,
    patternsAt,
    edit,
    keep,
    draw,
    mend,
    free,
    rename,
    reach,
    look,
    followers,
    remove,
  };
});
