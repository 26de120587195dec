import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeApp } from './app';

let server: Server;
let base: string;
beforeAll(async () => {
  const root = mkdtempSync(join(tmpdir(), 'server-'));
  for (const folder of ['app', 'app/assets', 'library', 'demo']) mkdirSync(join(root, folder));
  writeFileSync(join(root, 'app/index.html'), '<!doctype html><title>app</title>');
  writeFileSync(join(root, 'app/assets/big.js'), '// '.padEnd(5000, 'x'));
  writeFileSync(join(root, 'library/horn.wav'), Buffer.from('0123456789'));
  writeFileSync(join(root, 'secret.txt'), 'secret');
  const app = makeApp(
    { app: join(root, 'app'), library: join(root, 'library'), demo: join(root, 'demo') },
    { openDemo: true },
  );
  server = await new Promise<Server>((ready) => {
    const listening = app.listen(0, '127.0.0.1', () => ready(listening));
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => void server.close());

/** Asks for a path exactly as written, without a client tidying it up. */
const raw = (path: string) =>
  new Promise<{ status: number; body: string }>((done, fail) => {
    const { hostname, port } = new URL(base);
    const asking = request({ hostname, port, path }, (response) => {
      let body = '';
      response.on('data', (chunk: Buffer) => (body += chunk.toString()));
      response.on('end', () => done({ status: response.statusCode ?? 0, body }));
    });
    asking.on('error', fail).end();
  });

describe('the server', () => {
  test('isolates the page and allows neither inline nor foreign scripts', async () => {
    const { headers } = await fetch(base);
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    const policy = headers.get('content-security-policy')!;
    expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/);
    expect(policy).toMatch(/default-src 'self'/);
    expect(headers.get('x-powered-by')).toBeNull();
  });

  test('answers health and settings', async () => {
    expect(await (await fetch(`${base}/health`)).json()).toEqual({ ok: true, app: true });
    expect(await (await fetch(`${base}/settings.json`)).json()).toEqual({ openDemo: true });
  });

  test('serves parts of files and compresses text', async () => {
    const part = await fetch(`${base}/library/horn.wav`, { headers: { range: 'bytes=2-4' } });
    expect(part.status).toBe(206);
    expect(await part.text()).toBe('234');
    const script = await fetch(`${base}/assets/big.js`, { headers: { 'accept-encoding': 'gzip' } });
    expect(script.headers.get('content-encoding')).toBe('gzip');
  });

  test('gives the app for its own addresses, and 404 for missing files', async () => {
    const page = await fetch(`${base}/project/paper-harbour`, { headers: { accept: 'text/html' } });
    expect(await page.text()).toContain('<title>app</title>');
    expect((await fetch(`${base}/library/none.wav`)).status).toBe(404);
    expect((await fetch(`${base}/assets/none.js`)).status).toBe(404);
  });

  const asking = (path: string, headers: Record<string, string>, method = 'GET') =>
    new Promise<{ status: number; length: string | undefined; body: string }>((done, fail) => {
      const { hostname, port } = new URL(base);
      const sent = request({ hostname, port, path, method, headers }, (response) => {
        let body = '';
        response.on('data', (chunk: Buffer) => (body += chunk.toString()));
        response.on('end', () =>
          done({ status: response.statusCode ?? 0, length: response.headers['content-length'], body }),
        );
      });
      sent.on('error', fail).end();
    });

  test('answers only to its own names', async () => {
    expect((await asking('/', { host: 'localhost:4680' })).status).toBe(200);
    for (const host of ['evil.example', 'evil.example:4680', 'localhost.evil.example']) {
      const { status, body } = await asking('/settings.json', { host });
      expect(status).toBe(421);
      expect(body).not.toContain('openDemo');
    }
  });

  test('an unknown path with an ending is not the app, and HEAD agrees with GET', async () => {
    for (const path of ['/favicon.ico', '/project/x.json', '/wp-login.php'])
      expect((await asking(path, { accept: 'text/html' })).status).toBe(404);
    for (const path of [
      '/',
      '/project/paper-harbour',
      '/health',
      '/none.js',
      '/library/horn.wav',
      '/library/none.wav',
    ]) {
      const [get, head] = [
        await asking(path, { accept: 'text/html' }),
        await asking(path, { accept: 'text/html' }, 'HEAD'),
      ];
      expect([path, head.status, head.length]).toEqual([path, get.status, get.length]);
      expect(head.body).toBe('');
    }
    expect((await asking('/', { accept: 'text/html' }, 'POST')).status).toBe(404);
  });

  test.each([
    '/library/../secret.txt',
    '/library/%2e%2e/secret.txt',
    '/library/..%2fsecret.txt',
    '/assets/..%5c..%5csecret.txt',
    '/library/%00',
  ])('does not leave its folders for %s', async (path) => {
    const { status, body } = await raw(path);
    expect(body).not.toContain('secret');
    expect(status === 200 ? body : '').not.toBe('secret');
  });
});
