import { useEffect } from "react";

/** Something that can be done on the page that is open. */
export interface Offer {
  words: string;
  run: () => void;
  hint?: string;
}

const offered = new Map<string, readonly Offer[]>();

/** Offers what a part of the page can do to the palette, as long as the part is there. */
export function useOffers(owner: string, offers: readonly Offer[]): void {
  useEffect(() => {
    offered.set(owner, offers);
    return () => {
      offered.delete(owner);
    };
  }, [owner, offers]);
}

/** What can be done right now, in the order in which the parts came. */
export const offersNow = (): Offer[] => [...offered.values()].flat();
