import { still } from '../base/value';
import type { Layer, LayerId, Project, ShotId } from '../document/schema';
import { passOf } from '../passes/registry';

const uncut = (layer: Layer): Layer => ({
  ...layer,
  opacity: still(1),
  blend: 'normal',
  matte: null,
  shown: true,
  passes: layer.passes.filter(({ type }) => passOf(type)?.group !== 'cut out'),
});

/** A project as it is shown while one of its layers is traced: that layer without what cuts it, the layers above it only faintly. @param through 0…1, how much of those is seen */
export function tracedProject(project: Project, shotId: ShotId, layerId: LayerId, through: number): Project {
  return {
    ...project,
    shots: project.shots.map((shot) => {
      const at = shot.layers.findIndex(({ id }) => id === layerId);
      if (shot.id !== shotId || at < 0) return shot;
      const layers = shot.layers.map((layer, i) => {
        if (i === at) return uncut(layer);
        return i < at ? { ...layer, opacity: still(through), shown: layer.shown && through > 0 } : layer;
      });
      return { ...shot, layers };
    }),
  };
}
