'use client';
import { LeftOutlined } from '@ant-design/icons';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { usePalette } from '../colour/paletteStore';
import { usePots } from '../colour/potStore';
import { DeskHandContext, type DeskHand } from './deskHand';
import { DeskTop } from './DeskTop';
import styles from './desk.module.css';

/** The mixing desk: everything about colour that is thought over before or beside painting. */
export function Desk({ painting }: { painting: string }) {
  const open = usePalette((s) => s.open);
  const readPots = usePots((s) => s.read);
  const router = useRouter();
  useEffect(() => void open(painting || undefined), [open, painting]);
  useEffect(() => void readPots(), [readPots]);
  const hand: DeskHand = useMemo(
    () => ({
      take: (parts) => usePalette.getState().keepParts(parts),
      setOut(mixtures) {
        usePalette.getState().setOut(mixtures);
        router.push(`/easel?painting=${painting}`);
      },
    }),
    [router, painting],
  );
  return (
    <main className={styles.desk}>
      <DeskHandContext value={hand}>
        <DeskTop
          painting={painting}
          heading={<h1>Mixing desk</h1>}
          back={
            <Link href={painting ? `/easel?painting=${painting}` : '/'} className={styles.back}>
              <LeftOutlined /> {painting ? 'The easel' : 'The rack'}
            </Link>
          }
        />
      </DeskHandContext>
    </main>
  );
}
