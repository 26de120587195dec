import type { Edit } from '../edit';
import { shotIn } from '../find';
import { MOST_GUIDES, type Project, type Shot, type ShotId } from '../schema';

export type Guides = NonNullable<Shot['guides']>;
export const NO_GUIDES: Guides = { upright: [], level: [] };

/** Sets the guides of a shot. Those that lie on each other are one; beyond the most that a shot can have the last ones are left out. */
export const setGuides = (id: ShotId, guides: Guides, name: string): Edit => ({
  name,
  apply: (draft) => {
    const shot = shotIn(draft as Project, id);
    const [upright, level] = [guides.upright, guides.level].map((places) => [...new Set(places)].slice(0, MOST_GUIDES));
    if (upright!.length || level!.length) shot.guides = { upright: upright!, level: level! };
    else delete shot.guides;
  },
});
