import localforage from 'localforage';

/**
 * A store of the browser, where what is painted is kept. Each has a database of its own: adding a store to one that page
 * and worker both have open would make them wait. Nothing else opens one.
 * @param name of the store; what lies under it stays readable only as long as the name stays
 */
export const openStore = (name: string): LocalForage =>
  localforage.createInstance({ name: `stigmos-${name}`, storeName: name });
