import { defineStore } from 'pinia';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import {
  addMask,
  closePath,
  drawnByMasks,
  pasteMasks,
  removeMask,
  removeVertices,
  usesMasks,
  type Reach,
} from '../../core/document/edits/masks';
import {
  MASK_COLOURS,
  newMask,
  newShape,
  SHAPE_TITLES,
  type Mask,
  type MaskId,
  type Shape,
  type ShapeKind,
} from '../../core/document/mask';
import { rangeOf } from '../../core/document/edits/markers';
import { followOf } from '../../core/document/edits/follow';
import { carriedBy } from '../../core/time/drivers/follow';
import { JackplaneError } from '../../core/base/errors';
import { keysOf, still } from '../../core/base/value';
import { MOST_MATTE_DATA, type DrawnMatte } from '../../core/masks/matte-data';
import type { Vertex } from '../../core/masks/path';
import { steadyAt } from '../../core/time/values';
import type { Value } from '../../core/base/value';
import { newId } from '../base/ids';
import { usePlayhead } from './playhead';
import { useViewing } from './viewing';
import { useEdits } from './edits';
import { useBench } from './bench';
import { useNotices } from './notices';

/** What the pointer does on the picture: edit, draw a path by points or freehand, paint, erase, or say what a selection keeps or drops. */
export type MaskTool = 'edit' | 'points' | 'freehand' | 'paint' | 'erase' | 'keep' | 'drop';

/** Shapes whose extent no outline on the picture shows. */
export const isSoft = ({ kind }: Shape): boolean =>
  kind === 'brush' || kind === 'matte' || kind === 'picture' || kind === 'text';

/** What is chosen of the layer's masks, and the tools that draw them. */
export const useMasking = defineStore('masking', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const viewing = useViewing();
  const edits = useEdits();
  const notices = useNotices();
  const open = ref(false);
  const maskId = ref<MaskId | null>(null);
  const tool = ref<MaskTool>('edit');
  const vertices = ref(new Set<number>());
  const reach = ref<'here' | 'all' | 'range'>('here');
  const onion = ref(false);
  const pull = ref(false);
  /** whether the chosen mask is tinted; null = as long as no pass shows what it covers */
  const tint = ref<boolean | null>(null);
  /** the layer is shown uncut while its masks are open, and how much of what lies above it shows then */
  const uncut = ref(false);
  const through = ref(0.25);
  const brush = ref({ size: 40, hardness: 0.7, opacity: 1 });
  const clipboard = shallowRef<readonly Mask[]>([]);

  const masks = computed<readonly Mask[]>(() => bench.layer?.masks ?? []);
  const mask = computed<Mask | null>(() => masks.value.find((item) => item.id === maskId.value) ?? null);
  /** frame of layer time */
  const frame = computed(() => playhead.frame - (bench.layer?.span.start ?? 0));
  const path = computed<readonly Vertex[]>(() =>
    mask.value?.shape.kind === 'path' ? (steadyAt(mask.value.shape.path, frame.value) as readonly Vertex[]) : [],
  );
  /** What carries the chosen mask along, in source pixels from the centre, when it follows a track. */
  const carried = computed(() => {
    const link =
      mask.value &&
      Object.values(mask.value.shape)
        .map(followOf)
        .find((found) => found !== null);
    return link && bench.layer ? carriedBy(link, playhead.moment) : null;
  });
  watch([open, uncut, through, mask], () => {
    viewing.tracing = open.value && uncut.value && mask.value ? through.value : null;
  });
  const now = <T>(value: Value<T>): T => steadyAt(value, frame.value);

  watch([() => bench.layerId, masks], () => {
    if (!mask.value) maskId.value = masks.value.at(-1)?.id ?? null;
  });
  watch([maskId, () => bench.layerId], () => {
    vertices.value = new Set();
    tool.value = mask.value ? restingTool(mask.value.shape) : 'edit';
    tint.value = null;
  });
  watch(path, (points) => {
    if ([...vertices.value].some((i) => i >= points.length)) vertices.value = new Set();
  });
  // choosing a pass or an end of the line leaves the masks
  watch(
    () => [bench.chosen, bench.asked],
    () => (open.value = false),
  );

  /** What the pointer does when a mask has just been chosen. */
  function restingTool(shape: Shape): MaskTool {
    if (shape.kind === 'brush') return 'paint';
    if (shape.kind === 'matte' && shape.hints.length) return 'keep';
    return shape.kind === 'path' && !shape.closed && (!('still' in shape.path) || shape.path.still.length < 3)
      ? 'points'
      : 'edit';
  }

  function show(id?: MaskId): void {
    open.value = true;
    if (id) maskId.value = id;
    else if (!mask.value) maskId.value = masks.value[0]?.id ?? null;
    bench.picking = null;
  }

  /** Opens a path that has just been made, to be drawn point by point. */
  function draw(id: MaskId): void {
    void nextTick(() => {
      show(id);
      // after the choice has reset it
      void nextTick(() => (tool.value = 'points'));
    });
  }

  /** Adds a mask to the chosen layer and opens it. @returns its id */
  function add(shape: Shape, title: string, drawWith: MaskTool = restingTool(shape)): MaskId | null {
    if (!bench.layer || bench.layer.locked) return null;
    const id = newId<MaskId>();
    const names = new Set(masks.value.map((item) => item.name));
    let name = title;
    for (let n = 2; names.has(name); n++) name = `${title} ${n}`;
    const taken = new Set(masks.value.map((item) => item.colour));
    const colour =
      MASK_COLOURS.find((item) => !taken.has(item)) ?? MASK_COLOURS[masks.value.length % MASK_COLOURS.length]!;
    // an area that waits for a mask takes it
    const area = bench.pass?.area && !bench.pass.area.masks.length ? bench.pass.id : undefined;
    edits.editLayer((_, at) => addMask(at, newMask(id, name, shape, colour), area));
    maskId.value = id;
    open.value = true;
    // after the choice has reset it
    queueMicrotask(() => (tool.value = drawWith));
    return id;
  }
  /** Adds a drawn matte as a mask. @param remedy when its detail is too much @throws JackplaneError unsupported when a project cannot hold it */
  function addMatte(matte: DrawnMatte, title: string, remedy: string): void {
    if (matte.data.length > MOST_MATTE_DATA)
      throw new JackplaneError('unsupported', `“${title}” has more detail than a matte in a project can hold.`, remedy);
    add({ kind: 'matte', matte: still(matte), hints: [], confidence: still(1) }, title, 'edit');
  }
  /** A matte that strokes of keep and drop make. */
  function addSelection(): void {
    add(
      { kind: 'matte', matte: still({ w: 1, h: 1, data: '' }), hints: [], confidence: still(1) },
      'Selection',
      'keep',
    );
  }
  function addShape(kind: Exclude<ShapeKind, 'picture' | 'matte'>, drawWith?: MaskTool): void {
    if (bench.size) add(newShape(kind, bench.size), SHAPE_TITLES[kind], drawWith);
  }

  /** Removes the chosen vertices of the path, or the mask when there is no path or none of it is left. */
  function remove(): void {
    const { id, shape } = mask.value ?? {};
    if (!id) return;
    const chosen = new Set(vertices.value);
    if (shape?.kind === 'path' && chosen.size && chosen.size < path.value.length)
      edits.editLayer((project, at) => removeVertices(project, at, id, chosen));
    else if (shape?.kind !== 'path' || chosen.size) edits.editLayer((project, at) => removeMask(project, at, id));
    vertices.value = new Set();
  }

  /** The path that is being drawn, if one is. */
  const drawn = computed(() =>
    open.value && tool.value === 'points' && mask.value?.shape.kind === 'path' && !mask.value.shape.closed
      ? mask.value
      : null,
  );
  /** Ends drawing, keeping what is drawn, or lets go of what is chosen. @returns false when there was nothing to end */
  function escape(): boolean {
    if (!open.value || (tool.value === 'edit' && !vertices.value.size)) return false;
    if (drawn.value || tool.value === 'freehand') tool.value = 'edit';
    vertices.value = new Set();
    return true;
  }
  function closeDrawn(): void {
    const { id, shape } = mask.value ?? {};
    if (!id || shape?.kind !== 'path' || shape.closed || path.value.length < 3) return;
    edits.editLayer((project, at) => closePath(project, at, id, reach.value === 'here'));
    tool.value = 'edit';
  }

  const copy = (which: readonly Mask[]): void => {
    clipboard.value = which;
    notices.say(
      which.length === 1
        ? `Copied mask ${which[0]!.name}. Choose another layer and paste it there.`
        : `Copied ${which.length} masks. Choose another layer and paste them there.`,
    );
  };
  const paste = (): void => {
    if (clipboard.value.length) edits.editLayer((_, at) => pasteMasks(at, clipboard.value, newId));
  };

  /** Which keyframes a move of the path changes; a draft has none yet. */
  const pathReach = computed<Reach>(() => {
    if (mask.value?.shape.kind === 'path' && !mask.value.shape.closed) return 'all';
    if (reach.value !== 'range' || !bench.shot) return reach.value === 'range' ? 'here' : reach.value;
    const { from, to } = rangeOf(bench.shot);
    const start = bench.layer?.span.start ?? 0;
    return { from: from - start, to: to - 1 - start };
  });

  /** What a mask without a drawn outline covers is tinted on the picture. */
  const tinted = computed({
    get: () =>
      !!mask.value &&
      mask.value.on &&
      isSoft(mask.value.shape) &&
      (tint.value ??
        !(
          bench.layer &&
          (drawnByMasks(bench.layer, mask.value.id) ||
            bench.layer.passes.some((pass) => pass.on && usesMasks(pass, mask.value!.id)))
        )),
    set: (on) => (tint.value = on),
  });

  /** Frames to the keyframes of the path before and after the playhead; 0 = on one. */
  const toKeys = computed(() => {
    const keys = mask.value?.shape.kind === 'path' ? keysOf(mask.value.shape.path).map((key) => key.at) : [];
    const back = keys.filter((at) => at <= frame.value).at(-1);
    const on = keys.find((at) => at >= frame.value);
    return {
      count: keys.length,
      back: back === undefined ? null : frame.value - back,
      on: on === undefined ? null : on - frame.value,
    };
  });

  return {
    open,
    maskId,
    tool,
    vertices,
    reach,
    pathReach,
    onion,
    uncut,
    through,
    pull,
    brush,
    clipboard,
    masks,
    mask,
    frame,
    path,
    now,
    carried,
    toKeys,
    tinted,
    restingTool,
    escape,
    closeDrawn,
    show,
    draw,
    add,
    addMatte,
    addShape,
    addSelection,
    remove,
    copy,
    paste,
  };
});
