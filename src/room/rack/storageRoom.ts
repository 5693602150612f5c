import { canStore } from '@/engine/keeping/shelf';

const ASKED = 'stigmos-asked-to-stay';

/** How much room the browser has left for paintings, in words; it is tried, for its own figure can be wrong. */
export async function roomInWords(): Promise<string> {
  if (!(await canStore())) return 'This browser does not store anything more: there is no room left.';
  const { quota, usage = 0 } = (await navigator.storage?.estimate?.().catch(() => undefined)) ?? {};
  if (!quota) return '';
  const mb = (quota - usage) / 2 ** 20;
  return mb > 2048 ? `About ${Math.round(mb / 1024)} GB of room left.` : `About ${Math.round(mb)} MB of room left.`;
}

/** Asks the browser, once, not to throw paintings away when it tidies up. @returns what is to be said when it refuses */
export async function askToStay(): Promise<string> {
  const storage = navigator.storage;
  if (!storage?.persist) return '';
  let stays = await storage.persisted();
  if (!stays && !localStorage.getItem(ASKED)) {
    localStorage.setItem(ASKED, 'yes');
    stays = await storage.persist().catch(() => false);
  }
  return stays ? '' : 'The browser may clear them away when its disk gets full: send out a file of what matters.';
}
