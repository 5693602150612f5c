'use client';
import { create } from 'zustand';

/** Whether there is a window for onlookers. */
export const useLive = create<{ on: boolean }>(() => ({ on: false }));
