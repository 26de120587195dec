import { defineStore } from 'pinia';
import { useStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { alignLayers, spreadLayers, type Alignment, type Axis } from '../../core/document/edits/align';
import { copyKeys, moveKeys, pasteKeys, removeKeys, type KeyClip, type KeyRef } from '../../core/document/edits/keys';
import {
  duplicateLayer,
  freeName,
  nudgeLayers,
  pasteLayers,
  removeLayers,
  splitLayer,
} from '../../core/document/edits/time';
import { groupLayers, ungroup } from '../../core/document/edits/groups';
import { pasteParts as partsPasted, pastePass } from '../../core/document/edits/parts';
import { sourceSize } from '../../core/document/find';
import { removePass } from '../../core/document/edits/passes';
import { titleOf } from '../../core/passes/registry';
import {
  groupOf,
  type Layer,
  type LayerId,
  type LayerPart,
  type Pass,
  type PassId,
  type ShotId,
} from '../../core/document/schema';
import { valueIn } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import { newId } from '../base/ids';
import { usePlayhead } from './playhead';
import { useEdits } from './edits';
import { useBench } from './bench';
import { useNotices } from './notices';
import { useProject } from './project';
import { useRows } from './rows';

const ROW_HEIGHTS = [26, 40, 58] as const;
type Clipboard =
  { kind: 'layers'; layers: Layer[] } | { kind: 'keys'; clip: KeyClip } | { kind: 'pass'; pass: Pass; from: LayerId };

/** What is chosen in the time panel, many at once, and what can be done with it. */
export const useSelection = defineStore('selection', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const edits = useEdits();
  const store = useProject();
  const notices = useNotices();
  const rows = useRows();
  /** further chosen layers beside the bench's one */
  const more = ref<LayerId[]>([]);
  const keys = shallowRef<readonly KeyRef[]>([]);
  /** height of a layer's row in pixels, kept in the browser */
  const rowHeight = useStorage('jackplane row height', ROW_HEIGHTS[0] as number);
  const nextRowHeight = (): void => {
    rowHeight.value = ROW_HEIGHTS[(ROW_HEIGHTS.indexOf(rowHeight.value as 26) + 1) % ROW_HEIGHTS.length]!;
  };
  /** whether the bench's pass was chosen last, not a layer or keyframes: then it is what is copied, cut and deleted */
  const onPass = ref(false);
  /** the frame that what is dragged has snapped to */
  const snapAt = ref<number | null>(null);
  const clipboard = shallowRef<Clipboard | null>(null);
  /** where on the screen the layer's menu is asked for */
  const menuAt = shallowRef<[x: number, y: number] | null>(null);

  const layers = computed<LayerId[]>(() =>
    bench.layerId ? [bench.layerId, ...more.value.filter((id) => id !== bench.layerId)] : [],
  );
  watch([() => bench.layerId, () => bench.shotId], ([layer, shot], [, oldShot]) => {
    if (shot !== oldShot || !layer || !more.value.includes(layer)) more.value = [];
    if (shot !== oldShot) keys.value = [];
  });
  watch([() => bench.asked, () => bench.layerId], () => (onPass.value = false), { flush: 'sync' });
  // keyframes that an edit took away are no longer chosen
  watch(
    () => bench.shot?.layers,
    () => {
      if (keys.value.length)
        keys.value = keys.value.filter(
          (ref) =>
            layerOf(ref.layer) &&
            keysOf(valueIn(layerOf(ref.layer)!, ref.path) ?? { still: 0 }).some((key) => key.at === ref.at),
        );
    },
  );

  const layerOf = (id: LayerId): Layer | undefined => bench.shot?.layers.find((layer) => layer.id === id);
  const same = (a: KeyRef, b: KeyRef) => a.layer === b.layer && a.path === b.path && a.at === b.at;
  const has = (key: KeyRef): boolean => keys.value.some((other) => same(key, other));

  /** Puts the chosen layers into a group and chooses it. */
  function group(): void {
    if (!bench.shot || !layers.value.length) return;
    const ids = { shot: newId<ShotId>(), layer: newId<LayerId>() };
    const name = freeName('Group 1', store.current().shots);
    const mixing = layers.value.map(layerOf).filter((layer) => layer && layer.blend !== 'normal');
    try {
      store.edit(groupLayers(store.current(), { shot: bench.shot.id, layers: layers.value }, ids, name));
      bench.choose(ids.layer, 'place');
      if (mixing.length)
        notices.say(
          `${mixing.map((layer) => layer!.name).join(', ')} mixes with what is in the group only, not with what lies below it.`,
        );
    } catch (error) {
      notices.problem(error);
    }
  }
  /** Gives the layers of the chosen group back to the shot. */
  function apart(): void {
    if (bench.layer && groupOf(bench.layer)) edits.editLayer((project, at) => ungroup(project, at, newId));
  }

  function pickPass(id: PassId): void {
    bench.show(id);
    keys.value = [];
    onPass.value = true;
  }
  function pickLayer(id: LayerId, add: boolean): void {
    keys.value = [];
    onPass.value = false;
    if (!add) more.value = [];
    else if (bench.layerId && id !== bench.layerId)
      more.value = more.value.includes(id)
        ? more.value.filter((item) => item !== id)
        : [...more.value, bench.layerId, id];
    bench.choose(id);
  }
  /** Keyframes of a locked layer cannot be chosen, so nothing can be done to them. */
  function pickKey(key: KeyRef, add: boolean): void {
    if (layerOf(key.layer)?.locked) return;
    onPass.value = false;
    if (add) keys.value = has(key) ? keys.value.filter((other) => !same(key, other)) : [...keys.value, key];
    else if (!has(key)) keys.value = [key];
    if (key.layer !== bench.layerId) bench.choose(key.layer);
  }
  /** Moves the chosen keyframes; a drag gives the keyframes as they were when it began. */
  function moveBy(by: number, from: readonly KeyRef[] = keys.value, gesture?: string): void {
    if (!bench.shot) return;
    store.edit(moveKeys(bench.shot.id, from, by), gesture);
    keys.value = from.map((ref) => ({ ...ref, at: ref.at + by }));
  }

  /** Deletes what is chosen: keyframes when there are any, else the pass that was chosen last, else layers. */
  function remove(closing = false): void {
    const { shot } = bench;
    if (!shot) return;
    if (keys.value.length) {
      store.edit(removeKeys(shot.id, keys.value));
      keys.value = [];
    } else if (onPass.value) {
      const id = bench.pass?.id;
      if (id) edits.editLayer((project, at) => removePass(project, at, id));
      // pressed once more it takes the next pass, and never the layer
    } else if (layers.value.length) store.edit(removeLayers(store.current(), shot.id, layers.value, closing));
  }

  /** Chooses every layer; or, when keyframes are chosen, all of the layer's. */
  function all(): void {
    const { shot, layer } = bench;
    if (!shot) return;
    if (keys.value.length && layer)
      keys.value = rows
        .animated(layer)
        .flatMap(({ path }) => keysOf(valueIn(layer, path)!).map(({ at }) => ({ layer: layer.id, path, at })));
    else more.value = shot.layers.map(({ id }) => id);
  }

  function copy(): void {
    const { shot } = bench;
    if (!shot || !store.project) return;
    if (keys.value.length) {
      clipboard.value = { kind: 'keys', clip: copyKeys(store.project, shot.id, keys.value) };
      notices.say(`Copied ${keys.value.length === 1 ? 'a keyframe' : `${keys.value.length} keyframes`}.`);
    } else if (onPass.value && bench.pass && bench.layerId) {
      clipboard.value = { kind: 'pass', pass: bench.pass, from: bench.layerId };
      notices.say(`Copied ${titleOf(bench.pass.type)}.`);
    } else {
      const chosen = shot.layers.filter((layer) => layers.value.includes(layer.id));
      if (!chosen.length) return;
      clipboard.value = { kind: 'layers', layers: chosen };
      notices.say(`Copied ${chosen.length === 1 ? chosen[0]!.name : `${chosen.length} layers`}.`);
    }
  }
  function paste(reversed = false): void {
    const { shot } = bench;
    const held = clipboard.value;
    if (!shot || !held) return;
    if (held.kind === 'keys')
      edits.editLayer((_, at) => pasteKeys({ ...at, frame: playhead.frame }, held.clip, reversed));
    else if (held.kind === 'pass') {
      const seen = shot.layers.filter(
        (layer) => layers.value.includes(layer.id) && sourceSize(store.current(), shot, layer),
      );
      const to = seen.map(({ id }) => id);
      if (to.length) store.edit(pastePass(shot.id, held, to, newId, bench.pass?.id));
    } else choosingNew(() => store.edit(pasteLayers(shot.id, held.layers, playhead.frame, newId)));
  }

  /** Puts the chosen layers in line, a single one with the shot. */
  function align(way: Alignment): void {
    if (bench.shot) store.edit(alignLayers(store.current(), chosenNow(), way));
  }
  /** Makes the gaps between three or more chosen layers equal. */
  function spread(axis: Axis): void {
    if (bench.shot) store.edit(spreadLayers(store.current(), chosenNow(), axis));
  }
  const chosenNow = () => ({ shot: bench.shotId!, layers: layers.value, frame: playhead.frame });

  /** Gives parts of the layer that was copied to the chosen ones. */
  function pasteParts(which: ReadonlySet<LayerPart>): void {
    const held = clipboard.value;
    if (!bench.shot || held?.kind !== 'layers') return;
    store.edit(partsPasted(bench.shot.id, held.layers[0]!, layers.value, which, newId));
  }

  /** Does something that makes layers. @returns them, the top one first */
  function making(make: () => void): Layer[] {
    const before = new Set(bench.shot?.layers.map((layer) => layer.id));
    make();
    return (bench.shot?.layers ?? []).filter((layer) => !before.has(layer.id));
  }
  /** The same, and chooses them. */
  function choosingNew(make: () => void): void {
    const [first, ...others] = making(make).map((layer) => layer.id);
    if (!first) return;
    bench.choose(first);
    more.value = [first, ...others];
  }
  /** The same, and opens the source of the one with text, or else of the top one. */
  function choosingText(make: () => void): void {
    const made = making(make);
    const first = made.find(({ source }) => source.type === 'title') ?? made[0];
    if (!first) return;
    pickLayer(first.id, false);
    bench.show('source');
  }

  const split = (): void =>
    edits.editLayer((project, at) => splitLayer(project, { ...at, frame: playhead.frame }, newId));
  const duplicate = (by: number, times = 1): void =>
    choosingNew(() => edits.editLayer((project, at) => duplicateLayer(project, at, by, times, newId)));
  const nudge = (by: number): void => {
    if (!bench.shot) return;
    if (keys.value.length) moveBy(by);
    else store.edit(nudgeLayers(bench.shot.id, layers.value, by));
  };

  /** The nearest keyframe of the chosen layer before or after the playhead, of one value or of all. */
  function neighbour(way: -1 | 1, path?: string): number | null {
    const { layer } = bench;
    if (!layer) return null;
    const paths = path ? [path] : rows.animated(layer).map((entry) => entry.path);
    const frames = paths.flatMap((item) =>
      keysOf(valueIn(layer, item) ?? { still: 0 }).map((key) => key.at + layer.span.start),
    );
    const beyond = frames.filter((frame) => (frame - playhead.frame) * way > 0).sort((a, b) => (a - b) * way);
    return beyond[0] ?? null;
  }
  function toNeighbour(way: -1 | 1, path?: string): void {
    const frame = neighbour(way, path);
    if (frame !== null) playhead.seek(frame);
  }

  return {
    making,
    choosingText,
    all,
    menuAt,
    snapAt,
    rowHeight,
    nextRowHeight,
    more,
    layers,
    keys,
    clipboard,
    has,
    pickLayer,
    pickKey,
    pickPass,
    group,
    apart,
    moveBy,
    remove,
    copy,
    paste,
    pasteParts,
    align,
    spread,
    split,
    duplicate,
    nudge,
    neighbour,
    toNeighbour,
  };
});
