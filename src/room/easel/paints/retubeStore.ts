'use client';
import { create } from 'zustand';

interface RetubeState {
  /** The tube on the canvas that is to be replaced, and the one to put in its place. */
  from: string | undefined;
  to: string | undefined;
}

/** A change of tube that is considered. */
export const useRetube = create<RetubeState>(() => ({ from: undefined, to: undefined }));
export const setFrom = (from: string | undefined): void => useRetube.setState({ from });
export const setTo = (to: string | undefined): void => useRetube.setState({ to });
