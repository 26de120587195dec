import type { Shot } from '../../core/document/schema';
import { planAlone } from '../../core/plan/looks';
import { planFrame } from '../../core/plan/plan';
import type { FramePlan } from '../../core/plan/types';
import { withEnding } from '../../core/formats/names';
import { useEngine } from '../../engine/client';
import { useBench } from './bench';
import { useCompare } from './compare';
import { useImports } from './imports';
import { useNotices } from './notices';
import { usePlayhead } from './playhead';
import { useProject } from './project';

/** Takes the shot's frame at the playhead, at full size, into stock as a picture to compare others with. */
export async function pinFrame(): Promise<void> {
  const { shot } = useBench();
  const { frame } = usePlayhead();
  if (shot) await pin(planFrame(useProject().current(), shot.id, frame), shot, frame, shot.name);
}
/** The same of the chosen layer alone, with its alpha. */
export async function pinLayer(): Promise<void> {
  const { shot, layer } = useBench();
  const { frame } = usePlayhead();
  const plan = shot && layer && planAlone(useProject().current(), shot, layer, frame, 1, layer.passes);
  if (plan) await pin(plan, shot, frame, layer.name);
}

async function pin(plan: FramePlan, shot: Shot, frame: number, of: string): Promise<void> {
  try {
    const name = withEnding(`${of}, frame ${frame}`, 'png');
    const file = new File([await (await useEngine()).png(plan)], name, { type: 'image/png' });
    const [still] = await useImports().take([file], { shot: shot.name, frame });
    if (!still) return;
    useCompare().against = still.id;
    useNotices().say(`“${still.name}” is in the stock. Before | After compares with it.`);
  } catch (error) {
    useNotices().problem(error);
  }
}
