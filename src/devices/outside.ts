import { Gallery } from './gallery/gallery';
import { PrintShop } from './printShop/printShop';

interface Outside {
  readonly shop: PrintShop;
  readonly gallery: Gallery;
}

/** Every route is a program of its own: what they share lies where all of them look. */
const KEY = Symbol.for('stigmos.outside');
const places = globalThis as unknown as Record<symbol, Outside | undefined>;

/** The places outside that are simulated here. They live as long as the server, and never leave this machine. */
export const outside = (): Outside => (places[KEY] ??= { shop: new PrintShop(), gallery: new Gallery() });
