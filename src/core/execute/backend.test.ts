// Plans are walked alike whatever computes them: here a backend whose pictures are sentences about how they came to be.
import { beforeEach, expect, test } from '@jest/globals';
import { newSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import type { PassId } from '../document/schema';
import type { Rect } from '../picture/rect';
import { planFrame } from '../plan/plan';
import type { LayerPlan, PassPlan } from '../plan/types';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import type { Backend, Held } from './backend';
import { PictureCache } from './cache';
import { Executor } from './execute';

/** Pictures that someone holds. */
const alive = new Set<Sentence>();
class Sentence implements Held {
  private holders = 1;
  readonly bytes = 16;
  constructor(
    readonly rect: Rect,
    public says: string,
  ) {
    alive.add(this);
  }
  get shared(): boolean {
    return this.holders > 1;
  }
  retain(): this {
    this.holders++;
    return this;
  }
  release(): void {
    if (--this.holders === 0) alive.delete(this);
    if (this.holders < 0) throw new Error(`released twice: ${this.says}`);
  }
}

/** What was computed, in order. */
const done: string[] = [];
const told = (rect: Rect, says: string): Sentence => (done.push(says), new Sentence(rect, says));
const whole = ({ w, h }: { w: number; h: number }): Rect => ({ x: 0, y: 0, w, h });

function sentences(): Backend<Sentence> {
  const cache = new PictureCache<Sentence>(1e6);
  const through = (passes: readonly PassPlan[], picture: Sentence, keep: string): Sentence => {
    let current = picture;
    for (const pass of passes) {
      if (pass.type === 'median') {
        current.release();
        throw new Error('this pass fails');
      }
      const next = told(current.rect, `${pass.type} of ${current.says}`);
      if (keep === 'every') cache.put(pass.key, next);
      current.release();
      current = next;
    }
    return current;
  };
  return {
    cache,
    guarded: (work) => work(),
    prepareMasks: () => Promise.resolve(),
    preparePlates: () => Promise.resolve(),
    prepareLines: () => Promise.resolve(''),
    upload: (_, size) => told(whole(size), 'frame'),
    between: (first, second) => told(first.rect, `${first.says} to ${second.says}`),
    draw: ({ type }, size) => told(whole(size), type),
    placeholder: (size) => told(whole(size), 'stripes'),
    ground: (rect, colour) => told(rect, colour ? 'colour' : 'nothing'),
    part: (picture, rect) => new Sentence(rect, picture.says),
    halved: (picture, size) => new Sentence(whole(size), picture.says),
    trimmed: (picture) => picture.retain(),
    encode: (picture) => void (picture.says = `(${picture.says}) encoded`),
    passes: (passes, picture, _size, _further, keep) => through(passes, picture, keep),
    blend: (under, layer: LayerPlan, picture) => {
      under.says = `${picture.says} over ${under.says}`;
      done.push(`blend ${layer.name}`);
    },
    adjust: (under, { passes }) => void (under.says = `${passes.map(({ type }) => type).join()} on ${under.says}`),
    matte: (_, picture) => told(picture.rect, `what ${picture.says} covers`),
  };
}

const blur = newPass('b' as PassId, 'blur', null, { radius: 3 });
const tone = newPass('t' as PassId, 'tone', null, { exposure: 1 });
const drawn = (id: string, type: string, more: object = {}) => layerOf(id, newSource(type, { size: [64, 36] }), more);
const noFootage = () => Promise.reject(new Error('no footage here'));

beforeEach(() => {
  alive.clear();
  done.splice(0);
});

test('layers come from bottom to top, each with its passes in order, and nothing is held but what is kept', async () => {
  const executor = new Executor(sentences(), noFootage);
  const project = projectOf([drawn('top', 'colour', { passes: [blur, tone] }), drawn('low', 'gradient')]);
  const picture = await executor.frame(planFrame(project, SHOT, 0));
  expect(picture.says).toBe('tone of blur of colour over gradient over colour');
  picture.release();
  executor.cache.clear();
  expect(alive.size).toBe(0);
});

test('a dial on the top layer computes its pass and the blend of that layer, nothing else', async () => {
  const executor = new Executor(sentences(), noFootage);
  const shot = (exposure: number) =>
    projectOf([
      drawn('top', 'colour', { passes: [blur, newPass('t' as PassId, 'tone', null, { exposure })] }),
      ...['d', 'c', 'b', 'a'].map((id) => drawn(id, 'gradient', { passes: [blur] })),
    ]);
  (await executor.frame(planFrame(shot(1), SHOT, 0))).release();
  done.splice(0);
  (await executor.frame(planFrame(shot(1.5), SHOT, 0))).release();
  expect(done).toEqual(['tone of blur of colour', 'blend top']);
});

test('a step that fails shows stripes for its layer alone, and gives back what it held', async () => {
  const executor = new Executor(sentences(), noFootage);
  const failing = newPass('f' as PassId, 'median', null);
  const project = projectOf([drawn('top', 'colour', { passes: [blur, failing] }), drawn('low', 'gradient')]);
  const problems: { layer: string; sentence: string }[] = [];
  const picture = await executor.frame(planFrame(project, SHOT, 0), 'every', problems);
  expect(picture.says).toBe('stripes over gradient over colour');
  expect(problems.map(({ layer }) => layer)).toEqual(['top']);
  picture.release();
  executor.cache.clear();
  expect(alive.size).toBe(0);
});
