import { ref } from 'vue';
import { lackOf, type Lack } from '../../core/analysis/surface';
import { JackplaneError } from '../../core/base/errors';
import { addPass, newPass } from '../../core/document/edits/passes';
import type { PassId } from '../../core/document/schema';
import { growthOf } from '../../core/place/growth';
import { titleOf } from '../../core/passes/registry';
import { planLayer } from '../../core/plan/plan';
import type { FramePlan } from '../../core/plan/types';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

const rounded = (v: number, digits: number): number => Math.round(v * 10 ** digits) / 10 ** digits;
interface Texture {
  label: string;
  /** as what it is when nothing has to be added */
  already: string;
  pass: string;
  help: string;
  /** @returns null when it lacks none */
  values(lack: Lack): Record<string, unknown> | null;
}
/** What a layer is matched in besides its colours, each by itself. */
export const TEXTURES: readonly Texture[] = [
  {
    label: 'Softness',
    already: 'as soft',
    pass: 'blur',
    help: 'Blurs the layer as far as its edges are sharper.',
    values: ({ blur }) => (blur ? { radius: rounded(blur, 2), edges: 'fade' } : null),
  },
  {
    label: 'Grain',
    already: 'as grainy',
    pass: 'grain',
    help: 'Adds the grain that the layer lacks.',
    values: ({ grain, grainSize }) => (grain ? { amount: rounded(grain, 4), size: rounded(grainSize, 2) } : null),
  },
  {
    label: 'Black',
    already: 'as black in its darkest parts',
    pass: 'tone',
    help: 'Brings the darkest parts of the layer to where the others lie.',
    values: ({ black }) => (black ? { black: rounded(black, 3) } : null),
  },
];

/** Adds passes that make the layer as soft, grainy or black as what it is matched to. They are ordinary passes then. */
export function useTextureMatch() {
  const [bench, notices, store] = [useBench(), useNotices(), useProject()];
  const playhead = usePlayhead();
  const going = ref<string | null>(null);

  /** @param goal the picture that it is matched to, at full size @param named what that is, in words */
  async function add(texture: Texture, goal: FramePlan | null, named: string): Promise<void> {
    const { layer, shot, size } = bench;
    const { frame, at } = playhead;
    // as it is with all of its passes, so that what has been added counts
    const own = layer && shot && planLayer(store.current(), shot, layer, frame, 1);
    if (!own || !at || going.value) return;
    going.value = texture.label;
    try {
      const engine = await useEngine();
      const data = goal && (await engine.pixels(goal));
      const other = data && (await engine.measure(null, 'surfaceOf', { data, w: shot.width, h: shot.height }));
      const mine = await engine.measure(own, 'surface', null);
      if (!other || !mine)
        throw new JackplaneError(
          'bad-value',
          `Nothing solid of ${other ? layer.name : named} shows on this frame.`,
          'Go to a frame that shows it.',
        );
      const scale = 1 / growthOf(store.current(), shot, layer, frame);
      const values = texture.values(lackOf(mine, other, scale));
      if (!values) return notices.say(`${layer.name} is ${texture.already} as ${named} already.`);
      const added = newPass(newId<PassId>(), texture.pass, size, values);
      const index = layer.passes.filter(({ space }) => space === 'layer').length;
      store.edit(addPass(at, { ...added, space: 'layer' }, index));
      notices.say(`${titleOf(texture.pass)} was added to ${layer.name}, so that it is ${texture.already} as ${named}.`);
    } catch (error) {
      notices.problem(error);
    } finally {
      going.value = null;
    }
  }
  return { going, add };
}
