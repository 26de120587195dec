import type { DrawnMatte } from '../../core/masks/matte-data';
import { ref } from 'vue';
import { setShape } from '../../core/document/edits/masks';
import type { Hint, MaskId, Shape } from '../../core/document/mask';
import { withKeys } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import { still, type Key } from '../../core/base/value';
import { sourcePlan } from '../../core/plan/looks';
import type { SelectHint } from '../../core/analysis/select';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

type MatteShape = Extract<Shape, { kind: 'matte' }>;
/** Below this the selection stops going on and asks for strokes. */
export const UNSURE = 0.45;

/** a selection that is going on: frames done and wanted; null when none is */
const progress = ref<{ done: number; of: number } | null>(null);
let cancelled = false;

/** Computes smart selections from their strokes, and takes them on from frame to frame. */
export function useSelecting() {
  const bench = useBench();
  const playhead = usePlayhead();
  const edits = useEdits();
  const store = useProject();
  const notices = useNotices();

  const shapeOf = (id: MaskId): MatteShape | null => {
    const shape = bench.layer?.masks.find((mask) => mask.id === id)?.shape;
    return shape?.kind === 'matte' ? shape : null;
  };
  const planAt = (local: number) =>
    sourcePlan(store.current(), bench.shot!, bench.layer!, local + bench.layer!.span.start, 1)!;
  const hintsAt = (shape: MatteShape, at: number): SelectHint[] => {
    const { w, h } = bench.size!;
    return shape.hints
      .filter((hint: Hint) => hint.at === at)
      .map(({ keep, size, points }) => ({
        keep,
        radius: size / 2,
        points: points.map(([x, y]) => [x + w / 2, y + h / 2] as const),
      }));
  };
  const matteAt = (shape: MatteShape, at: number): DrawnMatte | null => {
    const own = keysOf(shape.matte).find((key) => key.at === at)?.value;
    return own?.data ? own : 'still' in shape.matte && shape.matte.still.data ? shape.matte.still : null;
  };

  /** Writes the matte of a frame; a selection with strokes on one frame only stays without keyframes. */
  function write(id: MaskId, at: number, found: { matte: DrawnMatte; confidence: number }, gesture: string): void {
    const shape = shapeOf(id);
    if (!shape) return;
    const single = 'still' in shape.matte && shape.hints.every((hint) => hint.at === at) && gesture.startsWith('hint');
    const keyed = <T>(value: MatteShape['matte' | 'confidence'], next: T) => {
      const others =
        'still' in value
          ? [...new Set(shape.hints.map((hint) => hint.at))]
              .filter((other) => other !== at)
              .slice(0, 1)
              .map((other) => ({ at: other, value: value.still, ease: 'hold' as const }))
          : value.keys;
      return withKeys(value as never, [...(others as Key<T>[]), { at, value: next, ease: 'hold' }], next as never);
    };
    const next = {
      ...shape,
      matte: single ? still(found.matte) : keyed(shape.matte, found.matte),
      confidence: single ? still(found.confidence) : keyed(shape.confidence, found.confidence),
    } as MatteShape;
    edits.editLayer((project, where) => setShape(project, where, id, next, 'Select with'), gesture);
  }

  /** Computes the selection at the playhead anew. */
  async function update(id: MaskId): Promise<void> {
    const shape = shapeOf(id);
    if (!shape || !bench.size) return;
    const at = playhead.frame - bench.layer!.span.start;
    try {
      // strokes after the first frame correct what was carried there
      const held = keysOf(shape.matte).find((key) => key.at === at)?.value;
      const plan = planAt(at);
      const found = await (
        await useEngine()
      ).select(
        plan,
        hintsAt(shape, at),
        held?.data && at !== keysOf(shape.matte)[0]?.at ? { layer: plan, matte: held } : null,
      );
      write(id, at, found, `hint ${id}`);
    } catch (error) {
      notices.problem(error);
    }
  }

  /** Takes the selection on over the next frames by motion, until it gets unsure or is cancelled. */
  async function goOn(id: MaskId, count: number): Promise<void> {
    const start = playhead.frame - bench.layer!.span.start;
    const end = Math.min(start + count, bench.layer!.span.length - 1);
    cancelled = false;
    progress.value = { done: 0, of: end - start };
    try {
      const engine = await useEngine();
      for (let at = start + 1; at <= end && !cancelled; at++) {
        const shape = shapeOf(id);
        const before = shape && matteAt(shape, at - 1);
        if (!shape || !before)
          return notices.say(
            'Draw keep and drop strokes on this frame first; the selection goes on from here.',
            'problem',
          );
        if (at === start + 1 && 'still' in shape.matte)
          write(
            id,
            start,
            { matte: before, confidence: 'still' in shape.confidence ? shape.confidence.still : 1 },
            `go on ${id}`,
          );
        const found = await engine.select(planAt(at), hintsAt(shape, at), { layer: planAt(at - 1), matte: before });
        write(id, at, found, `go on ${id}`);
        progress.value = { done: at - start, of: end - start };
        playhead.seek(at + bench.layer!.span.start);
        if (found.confidence < UNSURE)
          return notices.say(
            `The selection is unsure on frame ${playhead.frame} (${Math.round(found.confidence * 100)} %). Add keep and drop strokes here, then go on.`,
            'problem',
          );
      }
    } catch (error) {
      notices.problem(error);
    } finally {
      progress.value = null;
      store.endGesture();
    }
  }
  const cancel = (): void => void (cancelled = true);

  return { update, goOn, cancel, progress };
}
