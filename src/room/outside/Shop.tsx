'use client';
import { Button, Steps } from 'antd';
import { PRINT_PAPERS } from '@/core/formats/print/printPapers';
import { z } from '@/core/schema';
import { MOODS } from '@/devices/mood';
import { ORDER_STATES, orderSchema, type Order } from '@/devices/printShop/order';
import { OutsidePage } from './OutsidePage';
import { useOutside } from './useOutside';
import styles from './outside.module.css';

const shopSchema = z.object({ orders: z.array(orderSchema), mood: z.enum(MOODS) });
const STEPS = ORDER_STATES.map((state) => ({ title: state[0].toUpperCase() + state.slice(1) }));

/** The simulated print shop: what was sent to it, with its proof, its price, and how far it is. */
export function Shop() {
  const { there, trouble, does, onMood, mood } = useOutside('print-shop', shopSchema);
  return (
    <OutsidePage
      place="print-shop"
      mood={mood}
      onMood={onMood}
      trouble={trouble}
      says="A stand-in on this machine: nothing is printed, nothing is paid, nothing leaves. It looks at files as a shop would."
    >
      {there?.orders.length === 0 && <p>Nothing was sent here yet: a painting is, from Send out, for print.</p>}
      <ul className={styles.orders}>
        {there?.orders.map((order) => (
          <OrderCard key={order.id} order={order} does={does} />
        ))}
      </ul>
    </OutsidePage>
  );
}

function OrderCard({ order, does }: { order: Order; does: (id: string, what: 'confirm' | 'take-back') => void }) {
  const { id, title, paper, copies, widthMm, heightMm, ppi, bleedMm, price, state, says } = order;
  return (
    <li className={styles.order} aria-label={title}>
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img src={`/api/print-shop/${id}/proof`} alt={`Proof of ${title}`} />
      <div>
        <h2>{title}</h2>
        <p>
          {Math.round(widthMm)} × {Math.round(heightMm)} mm, {Math.round(ppi)} pixels an inch,{' '}
          {bleedMm > 0 ? `${bleedMm.toFixed(1)} mm bleed` : 'no bleed'}
        </p>
        <p>
          {copies} × {PRINT_PAPERS[paper].name}: <strong>€ {price.toFixed(2)}</strong>
        </p>
        {says.map((said) => (
          <p key={said} className="quiet">
            {said}
          </p>
        ))}
        <Steps size="small" current={ORDER_STATES.indexOf(state)} items={STEPS} />
        <div className={styles.buttons}>
          {state === 'offered' && (
            <Button size="small" type="primary" onClick={() => does(id, 'confirm')}>
              Confirm
            </Button>
          )}
          {(state === 'offered' || state === 'confirmed') && (
            <Button size="small" onClick={() => does(id, 'take-back')}>
              Take back
            </Button>
          )}
        </div>
      </div>
    </li>
  );
}
