/** A print shop that is not there: it takes files, looks at them as one would, and works them off by the clock. */
import { PainterError } from '@/core/errors';
import { encodePng } from '@/core/formats/png';
import type { PaperId } from '@/core/formats/print/printPapers';
import { printProof, proofSays } from '@/core/formats/print/printProof';
import type { Mood } from '@/devices/mood';
import { readPrintFile } from './printFile';
import type { Order, OrderState, Wish } from './order';

/** Bleed that is needed, mm; fewest pixels an inch, and those below which a print is soft. */
const BLEED_MM = 2;
const LEAST_PPI = 72;
const SHARP_PPI = 200;
/** Smallest and largest side that is printed, mm. */
const LEAST_MM = 40;
const MOST_MM = 1600;
/** Euros a square metre, for an order, and for cutting a sheet. */
const PER_SQUARE_METRE: Record<PaperId, number> = { cotton: 95, baryta: 110, coated: 28, uncoated: 24 };
const FOR_ORDER = 4.5;
const FOR_SHEET = 1.2;
/** When an order that was confirmed comes to each state, s. */
const SINCE_CONFIRMED: readonly (readonly [state: OrderState, seconds: number])[] = [
  ['confirmed', 0],
  ['printing', 4],
  ['drying', 12],
  ['ready', 24],
];
/** Orders that are remembered. */
const MOST_ORDERS = 12;
const PROOF_PPI = 96;

interface Taken {
  readonly order: Omit<Order, 'state'>;
  readonly proof: Uint8Array<ArrayBuffer>;
  confirmedAt?: number;
}

export class PrintShop {
  mood: Mood = 'open';
  private readonly taken = new Map<string, Taken>();

  /** @param now milliseconds of some clock */
  constructor(private readonly now: () => number = Date.now) {}

  /**
   * Takes a file in: what is sent again under the same id is the order that there is.
   * @throws PainterError with a sentence where it cannot be printed
   */
  async take(bytes: Uint8Array, { id, title, paper, copies }: Wish): Promise<Order> {
    const known = this.taken.get(id);
    if (known) return this.told(known);
    const { widthMm, heightMm, bleedMm, ppi, small } = await readPrintFile(bytes);
    const size = `${Math.round(widthMm)} x ${Math.round(heightMm)} mm`;
    if (Math.min(widthMm, heightMm) < LEAST_MM || Math.max(widthMm, heightMm) > MOST_MM)
      throw new PainterError(`It is ${size}: sheets from ${LEAST_MM} to ${MOST_MM} mm are printed here.`);
    if (ppi < LEAST_PPI)
      throw new PainterError(
        `It has ${Math.round(ppi)} pixels an inch at ${size}: fewer than ${LEAST_PPI} are not printed. Paint it again for print.`,
      );
    const says = [];
    if (bleedMm < BLEED_MM)
      says.push(
        bleedMm === 0
          ? 'It has no bleed: it is printed with a white border.'
          : `Its bleed is ${bleedMm.toFixed(1)} mm, less than ${BLEED_MM}: it is printed with a white border.`,
      );
    if (ppi < SHARP_PPI) says.push(`${Math.round(ppi)} pixels an inch: soft from near.`);
    const proof = printProof(small, paper, { asPaper: true, marked: false });
    says.push(proofSays(proof, paper));
    const area = (widthMm * heightMm) / 1e6;
    const price = FOR_ORDER + copies * (FOR_SHEET + area * PER_SQUARE_METRE[paper]);
    const order = {
      id,
      title,
      paper,
      copies,
      widthMm,
      heightMm,
      ppi,
      bleedMm,
      price: Math.round(price * 100) / 100,
      says,
    };
    const taken = { order, proof: encodePng(proof.raster, PROOF_PPI, 'srgb') };
    this.taken.set(id, taken);
    for (const [oldest] of this.taken) if (this.taken.size > MOST_ORDERS) this.taken.delete(oldest);
    return this.told(taken);
  }

  get orders(): Order[] {
    return [...this.taken.values()].reverse().map((one) => this.told(one));
  }

  order(id: string): Order | undefined {
    const one = this.taken.get(id);
    return one && this.told(one);
  }

  proof(id: string): Uint8Array<ArrayBuffer> | undefined {
    return this.taken.get(id)?.proof;
  }

  confirm(id: string): Order | undefined {
    const one = this.taken.get(id);
    if (one) one.confirmedAt ??= this.now();
    return one && this.told(one);
  }

  /** Takes an order back. @throws PainterError once it is being printed */
  withdraw(id: string): void {
    const state = this.order(id)?.state;
    if (state && state !== 'offered' && state !== 'confirmed')
      throw new PainterError('It is being printed already: it cannot be taken back.');
    this.taken.delete(id);
  }

  private told({ order, confirmedAt }: Taken): Order {
    if (confirmedAt === undefined) return { ...order, state: 'offered' };
    const seconds = (this.now() - confirmedAt) / 1000;
    const [state] = SINCE_CONFIRMED.findLast(([, from]) => seconds >= from) ?? SINCE_CONFIRMED[0];
    return { ...order, state };
  }
}
