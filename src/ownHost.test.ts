import { describe, expect, it } from 'vitest';
import { foreignTo } from './ownHost';

describe('who is served', () => {
  it.each([
    [{ host: '127.0.0.1:4173' }],
    [{ host: 'localhost' }],
    [{ host: '[::1]:80', origin: 'http://[::1]:80' }],
    [{ host: 'localhost:3000', origin: 'http://localhost:3000' }],
  ])('this machine: %j', (headers) => expect(foreignTo(new Headers(headers))).toBeUndefined());

  it.each<[Record<string, string>, RegExp]>([
    [{ host: 'paint.example' }, /not served under this name/],
    [{ host: '127.0.0.1.example:80' }, /not served under this name/],
    [{}, /not served under this name/],
    [{ host: 'localhost:3000', origin: 'http://localhost:4000' }, /Pages from elsewhere/],
    [{ host: 'localhost:3000', origin: 'null' }, /Pages from elsewhere/],
    [{ host: 'localhost:3000', origin: 'https://tide.example' }, /Pages from elsewhere/],
  ])('nobody else: %j', (headers, why) => expect(foreignTo(new Headers(headers))).toMatch(why));
});
