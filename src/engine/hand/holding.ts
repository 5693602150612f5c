/**
 * One tab paints on a painting at a time: it holds a lock of the painting's name, which the browser gives back by
 * itself when the tab goes. Another tab can look meanwhile, and ask for it over a channel.
 */
export interface Hold {
  release(): void;
}

const lockName = (painting: string) => `stigmos-painting-${painting}`;
const channelFor = (painting: string) => new BroadcastChannel(lockName(painting));

/** Time that a tab which is being left may take to give its lock back, ms. */
const LEAVING_MS = 1200;

/** A browser without locks has no other tabs to heed as far as can be known. */
const unlocked: Hold = { release: () => {} };

/** Requests the lock. @returns the hold, or undefined when the signal ended the wait */
async function request(painting: string, signal?: AbortSignal): Promise<Hold | undefined> {
  if (!navigator.locks) return unlocked;
  return new Promise((resolve, reject) => {
    navigator.locks
      .request(lockName(painting), { signal }, () => new Promise<void>((release) => resolve({ release })))
      .catch((error: unknown) => {
        if (signal?.aborted) resolve(undefined);
        else reject(error);
      });
  });
}

/** Holds a painting; undefined when another tab does. A browser that is slow to give the lock is no other tab. */
export async function hold(painting: string): Promise<Hold | undefined> {
  const giveUp = new AbortController();
  const asked = request(painting, giveUp.signal);
  for (;;) {
    const late = new Promise<'late'>((resolve) => setTimeout(() => resolve('late'), LEAVING_MS));
    const first = await Promise.race([asked, late]);
    if (first !== 'late') return first;
    const { held } = await navigator.locks.query();
    // if it has been given to this tab meanwhile, giving up comes too late and the hold is there
    if (held?.some(({ name }) => name === lockName(painting))) giveUp.abort();
  }
}

/** Holds a painting for as long as some work takes, once it is free. */
export async function whileHeld(painting: string, work: () => Promise<void>): Promise<void> {
  if (typeof navigator === 'undefined' || !navigator.locks) return work();
  await navigator.locks.request(lockName(painting), work);
}

/** Holds a painting when it is free at once, for as long as some work takes. @returns whether it was */
export async function ifFree(painting: string, work: () => Promise<void>): Promise<boolean> {
  if (typeof navigator === 'undefined' || !navigator.locks) {
    await work();
    return true;
  }
  return navigator.locks.request(lockName(painting), { ifAvailable: true }, async (lock) => {
    if (lock) await work();
    return lock !== null;
  });
}

/** Asks the tab that holds a painting to let go, and waits until it has. */
export async function takeOver(painting: string, signal: AbortSignal): Promise<Hold | undefined> {
  const channel = channelFor(painting);
  channel.postMessage('let go');
  try {
    return await request(painting, signal);
  } finally {
    channel.close();
  }
}

/** Calls back when another tab asks for the painting. @returns a function that stops listening */
export function whenAsked(painting: string, letGo: () => void): () => void {
  const channel = channelFor(painting);
  channel.onmessage = () => letGo();
  return () => channel.close();
}
