import { shallowRef, type ShallowRef } from 'vue';
import { appendVertex, setShape } from '../../core/document/edits/masks';
import { corner, fromFreehand, type Vertex } from '../../core/masks/path';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import { type SourceSpace } from './source-space';
import { tenths, type XY } from './frame';
import { SNAP, snapPoint } from './path-edit';

/** Stage pixels from its first point within which a click closes a path. */
const CLOSING = 10;

/** Draws the chosen path: point by point, or freehand in one go. */
export function usePen(
  space: SourceSpace,
  stage: () => Element,
): {
  line: ShallowRef<XY[]>;
  point(event: PointerEvent, first: XY | undefined): boolean;
  freehand(event: PointerEvent): void;
} {
  const bench = useBench();
  const edits = useEdits();
  const masking = useMasking();
  const store = useProject();
  const line = shallowRef<XY[]>([]);

  /** Adds a point; a drag pulls its handles out. @param first the path's first point on the stage @returns false when the click closes the path */
  function point(event: PointerEvent, first: XY | undefined): boolean {
    const bounds = stage().getBoundingClientRect();
    if (
      first &&
      masking.path.length >= 3 &&
      Math.hypot(event.clientX - bounds.left - first[0], event.clientY - bounds.top - first[1]) <= CLOSING
    )
      return false;
    const { id } = masking.mask!;
    const others = masking.path.map((v) => [v[0], v[1]] as const);
    const [x, y] = event.ctrlKey
      ? space.at(event)
      : snapPoint(space.at(event), others, bench.size!, SNAP * space.perStage.value).point;
    edits.editLayer((project, at) => appendVertex(project, at, id, corner(x, y)), `draw ${id}`);
    followPointer(
      event,
      (now) => {
        const [hx, hy] = space.at(now);
        edits.editLayer(
          (project, at) =>
            appendVertex(project, at, id, [x, y, tenths(x - hx), tenths(y - hy), tenths(hx - x), tenths(hy - y), 0]),
          `draw ${id}`,
        );
      },
      () => store.endGesture(),
    );
    return true;
  }

  function freehand(event: PointerEvent): void {
    line.value = [space.at(event)];
    followPointer(
      event,
      (now) => (line.value = [...line.value, space.at(now)]),
      () => {
        const drawn = fromFreehand(line.value, 1.5 * space.perStage.value).map(
          (v) => v.map(tenths) as unknown as Vertex,
        );
        line.value = [];
        if (drawn.length < 3) return;
        const { id } = masking.mask!;
        const key = { at: masking.frame, value: drawn, ease: 'linear' as const };
        edits.editLayer((project, at) =>
          setShape(
            project,
            at,
            id,
            {
              kind: 'path',
              closed: true,
              path: (masking.reach === 'here' ? { keys: [key] } : { still: drawn }) as never,
            },
            'Draw',
          ),
        );
        masking.tool = 'edit';
      },
    );
  }
  return { line, point, freehand };
}
