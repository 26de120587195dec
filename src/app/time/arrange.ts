import { arrange, type Arrangement } from '../../core/document/edits/arrangements';
import type { LayerId } from '../../core/document/schema';
import { newId } from '../base/ids';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { readInto, screenBefore } from '../stores/read-plate';
import { useSelection } from '../stores/selection';

/** Does something ready made to the chosen layers; what it adds is chosen, and a title's text is open for typing. */
export async function arrangeChosen(arrangement: Arrangement): Promise<void> {
  const [bench, store, selection] = [useBench(), useProject(), useSelection()];
  const viewing = useViewing();
  const { shot } = bench;
  if (!shot) return;
  try {
    const edit = arrange(store.current(), shot.id, selection.layers, arrangement, newId);
    const fresh = selection.making(() => store.edit(edit));
    const keyed = fresh.find(({ passes }) => passes.some(({ type }) => type === 'colour-key'));
    if (keyed) await keyByItself(keyed.id);
    const title = fresh.find(({ source }) => source.type === 'title');
    // what was made may be gone by now, or another shot be open
    if (!bench.shot?.layers.some(({ id }) => id === title?.id)) return;
    selection.pickLayer(title!.id, false);
    viewing.typeText();
  } catch (error) {
    useNotices().problem(error);
  }
}
/** Looks for the screen of a layer that has a key without one. */
async function keyByItself(layer: LayerId): Promise<void> {
  const bench = useBench();
  useSelection().pickLayer(layer, false);
  const key = bench.layer?.passes.find(({ type }) => type === 'colour-key');
  if (!key) return;
  bench.show(key.id);
  const screen = await screenBefore(key.id);
  if (screen && bench.layerId === layer) await readInto(key.id, 'reading', screen, true);
}
