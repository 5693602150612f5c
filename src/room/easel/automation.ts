import { useEffect } from 'react';
import { useEasel } from './easelStore';

/** What a script that drives the page may wait for, as `window.stigmos`. */
export interface Automation {
  /** Resolves once everything that was done at the easel so far is painted, shown and kept. Wet paper may flow on. */
  atRest(): Promise<void>;
}

declare global {
  interface Window {
    stigmos?: Automation;
  }
}

/** Offers it while the easel is there. */
export function useAutomation(): void {
  useEffect(() => {
    window.stigmos = {
      async atRest() {
        await useEasel.getState().engine?.ask({ of: 'rest' });
      },
    };
    return () => {
      delete window.stigmos;
    };
  }, []);
}
