import { afterEach, describe, expect, it, vi } from 'vitest';
import { hold } from './holding';

/** The locks of a browser: each goes to one tab at a time, and is given only after a while. */
function browser(givenAfterMs: number, heldElsewhere: boolean) {
  const held: { name: string }[] = [];
  if (heldElsewhere) held.push({ name: 'stigmos-painting-p' });
  const request = (name: string, { signal }: { signal?: AbortSignal }, work: () => Promise<void>) =>
    new Promise<void>((resolve, reject) => {
      signal?.addEventListener('abort', () => reject(new Error('aborted')));
      setTimeout(() => {
        if (signal?.aborted || held.some((lock) => lock.name === name)) return;
        held.push({ name });
        work().then(resolve, reject);
      }, givenAfterMs);
    });
  // time-outs of the platform do not know of a clock that is set by hand
  vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
    const ending = new AbortController();
    setTimeout(() => ending.abort(), ms);
    return ending.signal;
  });
  vi.stubGlobal('navigator', { locks: { request, query: () => Promise.resolve({ held: [...held] }) } });
}

describe('the hold on a painting', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.restoreAllMocks();
    vi.useRealTimers();
  });

  const outcome = async (of: Promise<unknown>) => {
    await vi.advanceTimersByTimeAsync(20_000);
    return of;
  };

  it.each([0, 1199, 1201, 5000])('is given when no other tab has it, however slow the browser (%i ms)', async (ms) => {
    vi.useFakeTimers();
    browser(ms, false);
    expect(await outcome(hold('p'))).toBeDefined();
  });

  it('is not given when another tab has it', async () => {
    vi.useFakeTimers();
    browser(0, true);
    expect(await outcome(hold('p'))).toBeUndefined();
  });
});
