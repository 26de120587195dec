import { describe, expect, test } from '@jest/globals';
import type { SoundItem } from '../core/sound/mix';
import { Sounds, type OpenFile, type SoundThread } from './sounds';

const item = (stock: string) => ({ stock }) as unknown as SoundItem;

/** Workers that note what they decode; some files never end, some are broken. */
function rig(kinds: Record<string, 'fine' | 'endless' | 'broken'>) {
  const log: string[] = [];
  const open = new Map<string, OpenFile>(Object.keys(kinds).map((id) => [id, { file: new Blob(), name: id }]));
  let begun = 0;
  const begin = (): SoundThread => {
    const name = `worker ${++begun}`;
    return {
      terminate: () => void log.push(`${name} ends`),
      api: {
        decode: (id: string) => {
          log.push(`${name} decodes ${id}`);
          if (kinds[id] === 'endless') return new Promise<void>(() => undefined);
          return kinds[id] === 'broken' ? Promise.reject(new Error(`${id} is broken`)) : Promise.resolve();
        },
        drop: async (id: string) => void log.push(`${name} drops ${id}`),
        mix: async (items: SoundItem[], _from: number, length: number) => {
          log.push(`${name} mixes ${items.map(({ stock }) => stock).join()}`);
          return [new Float32Array(length), new Float32Array(length)];
        },
      } as unknown as SoundThread['api'],
    };
  };
  return { log, sounds: new Sounds(open, begin, 20) };
}

describe('sound', () => {
  test('is decoded once, when it is first heard; what is not open is silent', async () => {
    const { log, sounds } = rig({ horn: 'fine' });
    await Promise.all([sounds.mix([item('horn'), item('gone')], 0, 4, 48000), sounds.mix([item('horn')], 4, 4, 48000)]);
    expect(log.filter((line) => line.includes('decodes'))).toEqual(['worker 1 decodes horn']);
  });

  test('that never ends is given up: the worker is replaced, the rest is heard', async () => {
    const { log, sounds } = rig({ endless: 'endless', horn: 'fine' });
    const [left] = await sounds.mix([item('endless'), item('horn')], 0, 8, 48000);
    expect(left).toHaveLength(8);
    await sounds.mix([item('endless'), item('horn')], 8, 8, 48000);
    expect(log).toContain('worker 1 ends');
    expect(log.filter((line) => line.includes('decodes endless'))).toEqual(['worker 1 decodes endless']);
    expect(log).toContain('worker 2 decodes horn');
    expect(log.at(-1)).toBe('worker 2 mixes endless,horn');
  });

  test('that is broken is said, and tried again when it is asked for again', async () => {
    const { log, sounds } = rig({ broken: 'broken' });
    await expect(sounds.mix([item('broken')], 0, 4, 48000)).rejects.toThrow('broken is broken');
    await expect(sounds.mix([item('broken')], 0, 4, 48000)).rejects.toThrow('broken is broken');
    expect(log.filter((line) => line.includes('decodes'))).toHaveLength(2);
  });

  test('of closed media is let go', async () => {
    const { log, sounds } = rig({ horn: 'fine' });
    await sounds.mix([item('horn')], 0, 4, 48000);
    await sounds.close('horn');
    expect(log.at(-1)).toBe('worker 1 drops horn');
  });
});
