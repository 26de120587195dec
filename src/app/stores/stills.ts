import { planFrame } from '../../core/plan/plan';
import { withEnding } from '../../core/formats/names';
import { useEngine } from '../../engine/client';
import { useBench } from './bench';
import { useCompare } from './compare';
import { useImports } from './imports';
import { useNotices } from './notices';
import { useProject } from './project';

/** Takes the shot's frame at the playhead, at full size, into stock as a picture to compare others with. */
export async function pinFrame(): Promise<void> {
  const bench = useBench();
  const { shot, frame } = bench;
  if (!shot) return;
  try {
    const plan = planFrame(useProject().current(), shot.id, frame);
    const name = withEnding(`${shot.name}, frame ${frame}`, 'png');
    const file = new File([await (await useEngine()).png(plan)], name, { type: 'image/png' });
    const [still] = await useImports().take([file], { shot: shot.name, frame });
    if (!still) return;
    useCompare().against = still.id;
    useNotices().say(`“${still.name}” is in the stock. Before | After compares with it.`);
  } catch (error) {
    useNotices().problem(error);
  }
}
