import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { Key } from '../../core/base/value';
import { lackOf, type Surface } from '../../core/analysis/surface';
import { together } from '../../core/document/edit';
import { followersOf } from '../../core/document/edits/follow';
import { addPass, newPass } from '../../core/document/edits/passes';
import { thinned } from '../../core/document/edits/thin';
import { sourceSize } from '../../core/document/find';
import type { Layer, LayerId, Pass, PassId } from '../../core/document/schema';
import { momentOf } from '../../core/place/moment';
import { growthOf } from '../../core/place/growth';
import { planBefore, sourcePlan } from '../../core/plan/looks';
import { valueAt } from '../../core/time/values';
import { growthAt, mapBetween, type Point } from '../../core/track/motion';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { useTracking } from '../stores/tracking';

const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;
/** Most frames on which the surface's light is looked at. */
const LOOKS = 24;
/** Less light than this, in stops, is not worth a pass. */
const LEAST_LIGHT = 0.04;
/** Stops by which keyframes of the light may be off. */
const TOLERANCE = 0.03;

interface Pinned {
  layer: Layer;
  pass: Pass;
}

/** Makes what is pinned on a tracked surface as soft, as grainy and as lit as the surface. */
export const useSurfaceMatch = defineStore('surfaceMatch', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const notices = useNotices();
  const store = useProject();
  const tracking = useTracking();
  const going = ref<{ done: number; of: number } | null>(null);
  let stopped = false;

  /** The layers of this shot whose corners lie on the chosen track. */
  function pinned(): Pinned[] {
    const { track } = tracking;
    if (!track || !bench.shot) return [];
    const paths = followersOf(store.current(), track.id).filter(({ shot }) => shot.id === bench.shotId);
    return bench.shot.layers.flatMap((layer) => {
      const pass = layer.passes.find((item) =>
        CORNERS.every((name) =>
          paths.some(({ layer: own, path }) => own.id === layer.id && path === `pass.${item.id}.${name}`),
        ),
      );
      return pass ? [{ layer, pass }] : [];
    });
  }

  /** How much larger the pin draws the layer's picture. */
  function pinGrowth({ layer, pass }: Pinned, size: { w: number; h: number }): number {
    const moment = momentOf(store.current(), bench.shot!, layer, playhead.frame);
    const [rx, ry] = [size.w / 2, size.h / 2];
    const corners: Point[] = [
      [-rx, -ry],
      [rx, -ry],
      [rx, ry],
      [-rx, ry],
    ];
    const to = CORNERS.map((name) => valueAt(pass.values[name]!, moment) as Point);
    const map = mapBetween(corners, to);
    return map ? growthAt(map, 0, 0) : 1;
  }

  /** The surface on a frame of the shot, in pixels of its clip. */
  async function lookAt(via: Layer, frame: number): Promise<Surface | null> {
    const [quad] = tracking.patternsAt(tracking.track!, tracking.frameOf(frame));
    const plan = sourcePlan(store.current(), bench.shot!, via, frame, 1);
    const { w, h } = tracking.size;
    if (!plan || !quad) return null;
    const corners = quad.map(([x, y]): Point => [x + w / 2, y + h / 2]);
    return (await useEngine()).measure(plan, 'surface', corners);
  }

  /** The surface's light over the frames on which both layers show, in stops from what it is at the playhead. */
  async function lightOver(via: Layer, own: Layer, here: Surface): Promise<Key<number>[]> {
    const from = Math.max(via.span.start, own.span.start);
    const to = Math.min(via.span.start + via.span.length, own.span.start + own.span.length) - 1;
    const count = Math.min(LOOKS, to - from + 1);
    going.value = { done: 0, of: count };
    const keys: Key<number>[] = [];
    for (let i = 0; i < count && !stopped; i++) {
      const frame = Math.round(from + ((to - from) * i) / Math.max(1, count - 1));
      const seen = await lookAt(via, frame);
      if (seen && seen.light > 1e-4)
        keys.push({ at: frame - own.span.start, value: Math.log2(seen.light / here.light), ease: 'linear' });
      going.value = { done: i + 1, of: count };
    }
    return keys;
  }

  async function match(id: LayerId): Promise<void> {
    const target = pinned().find(({ layer }) => layer.id === id);
    const via = bench.layer;
    const size = target && sourceSize(store.current(), bench.shot!, target.layer);
    if (!target || !via || !size || going.value || store.readOnly) return;
    const at = { shot: bench.shotId!, layer: id };
    stopped = false;
    going.value = { done: 0, of: 1 };
    try {
      const here = await lookAt(via, playhead.frame);
      const own = planBefore(store.current(), bench.shot!, target.layer, target.pass.id, playhead.frame);
      const drawn = own && (await (await useEngine()).measure(own, 'surface', null));
      if (!here || !drawn)
        return notices.say(
          `Nothing solid of ${here ? target.layer.name : via.name} shows here. Go to a frame on which it does.`,
          'problem',
        );
      const light = await lightOver(via, target.layer, here);
      if (stopped) return;
      // one pixel of the clip, in pixels of the layer that lies on it
      const growth = (layer: Layer, place?: Point) =>
        growthOf(store.current(), bench.shot!, layer, playhead.frame, place);
      const scale = growth(via, tracking.points?.[0]) / growth(target.layer);
      const passes: Pass[] = [];
      const add = (type: string, values: Pass['values']) => {
        const pass = newPass(newId<PassId>(), type, size);
        passes.push({ ...pass, values: { ...pass.values, ...values } });
      };
      if (light.length && Math.max(...light.map(({ value }) => Math.abs(value))) >= LEAST_LIGHT)
        add('adjust', { exposure: { keys: thinned(light, TOLERANCE) } });
      const { blur, grain, grainSize } = lackOf(drawn, here, scale, pinGrowth(target, size));
      if (blur) add('blur', { radius: { still: round(blur, 2) }, edges: { still: 'fade' } });
      if (grain) add('grain', { amount: { still: round(grain, 4) }, size: { still: round(grainSize, 2) } });
      if (!passes.length)
        return notices.say(`${target.layer.name} is as soft, as grainy and as lit as the surface already.`);
      const index = target.layer.passes.findIndex((item) => item.id === target.pass.id) + 1;
      store.edit(
        together(
          store.current(),
          `Match ${target.layer.name} to ${tracking.track!.name}`,
          passes.map((pass, i) => () => addPass(at, pass, index + i)),
        ),
      );
      bench.choose(id, passes[0]!.id);
      bench.show(passes[0]!.id);
    } catch (error) {
      notices.problem(error);
    } finally {
      going.value = null;
    }
  }
  const round = (v: number, digits: number): number => Math.round(v * 10 ** digits) / 10 ** digits;

  return { going, pinned, match, stop: () => (stopped = true) };
});
