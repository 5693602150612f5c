'use client';
import dynamic from 'next/dynamic';
import { useSearchParams } from 'next/navigation';

/** The desk works with what the browser keeps: it is shown there only. */
const Desk = dynamic(() => import('./Desk').then((m) => m.Desk), { ssr: false });

export const DeskPage = () => <Desk painting={useSearchParams().get('painting') ?? ''} />;
