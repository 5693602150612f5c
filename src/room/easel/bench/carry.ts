import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Mixture } from '@/core/colour/mixture';
import type { ToolId } from '@/core/tools/tools';

/** What a hand can draw from one place of the bench to another. */
export type Carried =
  | { readonly of: 'tool'; readonly tool: ToolId }
  | { readonly of: 'place'; readonly place: number; readonly tool: ToolId }
  | { readonly of: 'tube'; readonly tube: string }
  | { readonly of: 'mixture'; readonly mixture: Mixture }
  | { readonly of: 'pot'; readonly place: number; readonly mixture: Mixture };

/** What happens where it is let go: what it was, and where its middle lies, client coordinates. */
export type Landing = (what: Carried, at: readonly [number, number]) => void;

/** The paint in what is carried; undefined where it is none. */
export function paintIn(what: Carried): Mixture | undefined {
  switch (what.of) {
    case 'tube':
      return { [what.tube]: 1 };
    case 'mixture':
    case 'pot':
      return what.mixture;
    case 'tool':
    case 'place':
      return undefined;
  }
}

/** Something that can be carried. */
export const useCarried = (id: string, carried: Carried | undefined) =>
  useDraggable({ id, disabled: !carried, data: { carried } });

/** A place where it can be let go. */
export const useLanding = (id: string, landing: Landing) => useDroppable({ id, data: { landing } });

type Data = { readonly current?: { readonly carried?: Carried; readonly landing?: Landing } };
export const carriedBy = (active: { data: Data } | null): Carried | undefined => active?.data.current?.carried;
export const landingOf = (over: { data: Data } | null): Landing | undefined => over?.data.current?.landing;
