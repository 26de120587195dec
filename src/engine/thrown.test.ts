import { MessageChannel } from 'node:worker_threads';
import * as Comlink from 'comlink';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { JackplaneError, sentenceOf } from '../core/base/errors';
import { carryErrors } from './thrown';

const { port1, port2 } = new MessageChannel();
const api = {
  known: () => {
    throw new JackplaneError('missing-media', 'The media of “kite” is missing.', 'Link it again from the stock list.');
  },
  plain: () => {
    throw new Error('no frame could be decoded');
  },
  odd: () => {
    throw 'tired';
  },
  fine: (a: number, b: number) => a + b,
};
/** Node's ports, with the listeners that the browser's have. */
const browserLike = (port: typeof port1): Comlink.Endpoint => {
  const heard = new Map<unknown, (data: unknown) => void>();
  return {
    postMessage: (message, transfer) => port.postMessage(message, transfer as never),
    addEventListener: (_, listener) => {
      const hear = (data: unknown) => (listener as (event: unknown) => void)({ data, origin: '' });
      heard.set(listener, hear);
      port.on('message', hear);
    },
    removeEventListener: (_, listener) => void port.off('message', heard.get(listener)!),
    start: () => port.start(),
  };
};
let far: Comlink.Remote<typeof api>;
beforeAll(() => {
  carryErrors();
  Comlink.expose(api, browserLike(port1));
  far = Comlink.wrap<typeof api>(browserLike(port2));
});
afterAll(() => {
  port1.close();
  port2.close();
});

describe('errors between threads', () => {
  test('one for a person arrives whole', async () => {
    await expect(far.known()).rejects.toBeInstanceOf(JackplaneError);
    await expect(far.known()).rejects.toMatchObject({
      code: 'missing-media',
      sentence: 'The media of “kite” is missing.',
      remedy: 'Link it again from the stock list.',
    });
  });

  test('others arrive with their words, which are not for the screen', async () => {
    await expect(far.plain()).rejects.toThrow('no frame could be decoded');
    await expect(far.odd()).rejects.toThrow('tired');
    const error = await (far.plain() as Promise<unknown>).catch((thrown: unknown) => thrown);
    expect(sentenceOf(error)).not.toContain('no frame could be decoded');
    expect(sentenceOf(error)).toMatch(/does not know/);
  });

  test('and answers come as before', async () => {
    expect(await far.fine(2, 3)).toBe(5);
  });
});
