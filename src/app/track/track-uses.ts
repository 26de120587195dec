import { computed, reactive } from 'vue';
import { still } from '../../core/base/value';
import type { Edit } from '../../core/document/edit';
import { followTrack, type NewLink } from '../../core/document/edits/follow';
import { addMask } from '../../core/document/edits/masks';
import { addPass, newPass } from '../../core/document/edits/passes';
import { together } from '../../core/document/edit';
import { layerIn, shotIn, sourceSize } from '../../core/document/find';
import { MASK_COLOURS, newMask, type MaskId } from '../../core/document/mask';
import type { Layer, LayerId, Pass, PassId, Project } from '../../core/document/schema';
import { project as projected, projectiveInverse } from '../../core/picture/matrix';
import { momentOf } from '../../core/place/moment';
import { middleOf, type Point } from '../../core/track/motion';
import type { TrackKind } from '../../core/track/samples';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { useTracking } from '../stores/tracking';
import { useSurfaceMatch } from './match-surface';

export interface Use {
  title: string;
  /** the layers it can be done with; without them it is done with the chosen one */
  others?: readonly Layer[];
  run(layer?: LayerId): void;
}

const PLACE = ['place.position', 'place.rotation', 'place.scale'];
const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'];
/** How much larger than its pattern a soft shape about it is. */
const AROUND = 2.2;

/** What a track can be used for in one gesture, each one step of the history. */
export function useTrackUses() {
  const bench = useBench();
  const playhead = usePlayhead();
  const notices = useNotices();
  const store = useProject();
  const tracking = useTracking();
  const matching = useSurfaceMatch();

  const others = computed(() =>
    bench.shot!.layers.filter(
      (layer) => layer.id !== bench.layerId && !layer.locked && sourceSize(store.current(), bench.shot!, layer),
    ),
  );
  const at = () => ({ shot: bench.shotId!, layer: bench.layerId!, frame: playhead.frame });
  const link = (paths: readonly string[], parts?: NewLink['parts']): NewLink => ({
    track: tracking.track!.id,
    via: bench.layerId!,
    paths,
    ...(parts && { parts }),
  });
  function tried(work: () => void): void {
    try {
      work();
    } catch (error) {
      notices.problem(error);
    }
  }

  /** Another layer's place goes along. */
  const carry = (layer: LayerId): void =>
    tried(() => {
      store.edit(followTrack(store.current(), { ...at(), layer }, link(PLACE)));
      bench.choose(layer, 'place');
      bench.show('place');
    });

  /** A soft shape about the tracked thing that follows it. */
  function shape(): { id: MaskId; add: (now: Project) => Edit; follow: (now: Project) => Edit } {
    const points = tracking.points ?? [[0, 0]];
    const centre = middleOf(points);
    const corners = tracking.patterns.flat();
    const extent = (part: 0 | 1) => Math.max(...corners.map((p) => p[part])) - Math.min(...corners.map((p) => p[part]));
    const id = newId<MaskId>();
    const mask = newMask(
      id,
      tracking.track!.name,
      {
        kind: 'ellipse',
        centre: still(centre),
        size: still([Math.round(extent(0) * AROUND), Math.round(extent(1) * AROUND)] as [number, number]),
        rotation: still(0),
      },
      MASK_COLOURS[bench.layer!.masks.length % MASK_COLOURS.length]!,
    );
    return {
      id,
      add: () => addMask(at(), { ...mask, feather: still(Math.round(Math.max(extent(0), extent(1)) * 0.6)) }),
      follow: (now) => followTrack(now, at(), link([`mask.${id}.centre`, `mask.${id}.size`, `mask.${id}.rotation`])),
    };
  }
  const mask = (): void =>
    tried(() => {
      const { add, follow } = shape();
      store.edit(together(store.current(), `Mask on ${tracking.track!.name}`, [add, follow]));
    });
  /** Sharp inside the shape that follows, soft outside. */
  const focus = (): void =>
    tried(() => {
      const { id, add, follow } = shape();
      const pass: Pass = {
        ...newPass(newId<PassId>(), 'blur'),
        area: { masks: [id], side: 'outside' },
      };
      store.edit(
        together(store.current(), `Follow focus on ${tracking.track!.name}`, [add, follow, () => addPass(at(), pass)]),
      );
      bench.show(pass.id);
    });
  const withTrack = (type: string): void =>
    tried(() => {
      const pass = newPass(newId<PassId>(), type, bench.size, { track: tracking.track!.id });
      store.edit(addPass(at(), pass));
      bench.show(pass.id);
    });
  /** Another layer's corners lie on those of the plane and stay there. */
  const pin = (layer: LayerId): void =>
    tried(() => {
      const now = store.current();
      const shot = shotIn(now, bench.shotId!);
      const own = layerIn(shot, layer);
      const { lookup } = playhead.moment;
      const intoShot = lookup.projection(playhead.moment);
      const theirs = lookup.projection(momentOf(now, shot, own, playhead.frame));
      const back = theirs && projectiveInverse(theirs);
      const corners = tracking.patterns[0];
      if (!intoShot || !back || !corners) return;
      const into = ([x, y]: Point): [number, number] => {
        const [u, v] = projected(intoShot, x, y);
        const [p, q] = projected(back, u, v);
        return [Math.round(p * 100) / 100, Math.round(q * 100) / 100];
      };
      const values = Object.fromEntries(CORNERS.map((name, i) => [name, into(corners[i]!)]));
      const pass = newPass(newId<PassId>(), 'corner-pin', sourceSize(now, shot, own), values);
      const there = { ...at(), layer };
      store.edit(
        together(now, `Pin ${own.name} on ${tracking.track!.name}`, [
          () => addPass(there, pass),
          (after) => followTrack(after, there, link(CORNERS.map((name) => `pass.${pass.id}.${name}`))),
        ]),
      );
      bench.choose(layer, pass.id);
      bench.show(pass.id);
    });

  const uses: Record<TrackKind, readonly (() => Use)[]> = (() => {
    const layer = () => ({ title: 'A layer goes along', others: others.value, run: (id?: LayerId) => id && carry(id) });
    const masked = () => ({ title: 'Mask on it', run: mask });
    const focused = () => ({ title: 'Follow focus', run: focus });
    const steadied = () => ({ title: 'Steady the layer', run: () => withTrack('steady') });
    const trailed = () => ({ title: 'Trail', run: () => withTrack('trail') });
    const pinned = () => ({ title: 'Pin a layer on it', others: others.value, run: (id?: LayerId) => id && pin(id) });
    const matched = () => ({
      title: 'Match what is pinned',
      others: matching.pinned().map(({ layer }) => layer),
      run: (id?: LayerId) => id && void matching.match(id),
    });
    return {
      point: [layer, masked, focused, trailed, steadied],
      pair: [layer, masked, focused, steadied, trailed],
      patch: [layer, masked, focused, pinned, matched, steadied],
      plane: [pinned, matched, layer, masked, steadied],
      sway: [steadied, layer],
    };
  })();
  return reactive({
    shown: computed<Use[]>(() => (tracking.track ? uses[tracking.track.kind].map((make) => make()) : [])),
  });
}
