import { request as ask } from 'node:http';
import { expect, test } from '@playwright/test';

/** Answers of the server to requests that no page makes. They go over a bare connection: a browser would mend them. */

interface Asked {
  method?: string;
  path?: string;
  headers?: Record<string, string>;
  /** What is sent of a body; the request is left unfinished when it says that more will come. */
  body?: string;
}

/** @returns status and text of the answer */
function answerTo(base: string, { method = 'GET', path = '/', headers = {}, body }: Asked): Promise<[number, string]> {
  return new Promise((resolve, reject) => {
    const sent = ask(base + path, { method, headers }, (answer) => {
      let text = '';
      answer.on('data', (part) => (text += part));
      answer.on('end', () => resolve([answer.statusCode!, text]));
    });
    sent.on('error', reject);
    if (body !== undefined && headers['content-length'] !== undefined) sent.write(body);
    else sent.end(body);
  });
}

test('methods, hosts, origins and bodies that are not for here are refused, and the server goes on', async ({
  baseURL,
}) => {
  const to = (asked: Asked) => answerTo(baseURL!, asked);
  for (const path of ['/', '/easel', '/api/measure', '/icon.svg', '/demo/estuary.jpg'])
    for (const method of ['TRACE', 'PUT', 'DELETE', 'PROPFIND'])
      expect((await to({ method, path }))[0], `${method} ${path}`).toBe(405);
  const json = { 'content-type': 'application/json' };
  const measure = { method: 'POST', path: '/api/measure' };
  for (const path of ['/', '/easel', '/api/journal-schema'])
    expect(await to({ path, headers: { host: 'elsewhere.example' } })).toEqual([
      403,
      expect.stringContaining('not served under this name'),
    ]);
  const foreignPage = { origin: 'http://elsewhere.example' };
  expect((await to({ path: '/api/journal-schema', headers: foreignPage }))[0]).toBe(403);
  const foreign = { ...json, ...foreignPage };
  expect((await to({ ...measure, headers: foreign, body: '{}' }))[0]).toBe(403);
  const [large, why] = await to({ ...measure, headers: json, body: ' '.repeat(300_000) });
  expect([large, why]).toEqual([413, expect.stringContaining('more than')]);
  // a body that says it is long, and of which nothing more comes
  const begun = Date.now();
  const [slow] = await to({ ...measure, headers: { ...json, 'content-length': '1000' }, body: '{' });
  expect(slow).toBe(408);
  expect(Date.now() - begun, 'ms until it is given up').toBeLessThan(15_000);
  expect((await to({ path: '/_next/image?url=%2Fdemo%2Festuary.jpg&w=640&q=75' }))[0]).toBe(404);
  expect((await to({}))[0]).toBe(200);
});

test('pages are served with a strict policy and without telling who serves them', async ({ request }) => {
  const answer = await request.get('/');
  const policy = answer.headers()['content-security-policy'];
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
  expect(answer.headers()['cross-origin-opener-policy']).toBe('same-origin');
  expect(answer.headers()['x-powered-by']).toBeUndefined();
  const schema = (await (await request.get('/api/journal-schema')).json()) as { type: string };
  expect(schema.type).toBe('object');
});
