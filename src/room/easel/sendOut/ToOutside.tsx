'use client';
import { Button, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { PainterError } from '@/core/errors';
import type { Made } from '@/core/formats/exports/definition';
import { PRINT_PAPERS, type PaperId } from '@/core/formats/print/printPapers';
import { pieceSchema } from '@/devices/gallery/piece';
import { orderSchema } from '@/devices/printShop/order';
import { PLACES, sendOutside } from '@/room/outside/askOutside';
import styles from './sendOut.module.css';

type Make = () => Promise<Made | undefined>;
type Send = (file: Made, id: string) => Promise<string>;

const PAPERS = Object.entries(PRINT_PAPERS).map(([value, { name }]) => ({ value: value as PaperId, label: name }));

/** Sends one file, however often it is tried, under one id. */
function useSending(make: Make, send: Send) {
  const [id, setId] = useState<{ readonly file: Made; readonly id: string }>();
  const [sending, setSending] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState('');
  const go = async () => {
    setSending(true);
    setTrouble('');
    setDone('');
    try {
      const file = await make();
      if (!file) return;
      // what was cut off is sent again as the same; another file is another
      const known = id?.file === file ? id : { file, id: crypto.randomUUID() };
      setId(known);
      setDone(await send(file, known.id));
      setId(undefined);
    } catch (error) {
      setTrouble(error instanceof PainterError ? error.message : 'It could not be sent.');
    } finally {
      setSending(false);
    }
  };
  return { go, sending, trouble, done };
}

/** Sends the file to the print shop that is simulated here. */
export function ToShop({ title, make }: { title: string; make: Make }) {
  const [paper, setPaper] = useState<PaperId>('cotton');
  const [copies, setCopies] = useState(1);
  const sending = useSending(make, async ({ bytes }, id) => {
    const said = { id, title, paper, copies: String(copies) };
    const { price } = await sendOutside('print-shop', bytes, said, orderSchema);
    return `It would cost € ${price.toFixed(2)}. The proof is at the print shop, where it is confirmed.`;
  });
  return (
    <section className={styles.outside} aria-label={PLACES['print-shop']}>
      <h3>To the print shop (simulated)</h3>
      <div className={styles.row}>
        <Select size="small" aria-label="Paper of the shop" value={paper} options={PAPERS} onChange={setPaper} />
        <InputNumber
          size="small"
          aria-label="Copies"
          min={1}
          max={100}
          precision={0}
          value={copies}
          onChange={(v) => v && setCopies(v)}
        />
      </div>
      <Sending {...sending} says="Send it there" href="/shop" goes="See the print shop" />
    </section>
  );
}

/** Hangs the file in the gallery that is simulated here. */
export function ToGallery({ title, make }: { title: string; make: Make }) {
  const [caption, setCaption] = useState('');
  const sending = useSending(make, async ({ bytes }, id) => {
    await sendOutside('gallery', bytes, { id, title, caption }, pieceSchema);
    return 'It hangs in the gallery.';
  });
  return (
    <section className={styles.outside} aria-label={PLACES.gallery}>
      <h3>To the gallery (simulated)</h3>
      <Input.TextArea
        aria-label="Caption"
        placeholder="What stands beside it"
        rows={2}
        maxLength={600}
        value={caption}
        onChange={(e) => setCaption(e.target.value)}
      />
      <Sending {...sending} says="Hang it there" href="/gallery" goes="See the gallery" />
    </section>
  );
}

function Sending({
  go,
  sending,
  trouble,
  done,
  says,
  href,
  goes,
}: ReturnType<typeof useSending> & { says: string; href: string; goes: string }) {
  return (
    <>
      <div className={styles.row}>
        <Button size="small" disabled={sending} onClick={() => void go()}>
          {trouble ? 'Try again' : says}
        </Button>
        <a href={href} target="_blank" rel="noreferrer">
          {goes}
        </a>
      </div>
      {trouble && (
        <p role="alert" className="trouble">
          {trouble}
        </p>
      )}
      {done && (
        <p role="status" className="quiet">
          {done}
        </p>
      )}
    </>
  );
}
