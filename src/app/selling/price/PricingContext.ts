'use client';
import { createContext, useContext } from 'react';
import type { Draft, LadderScale, PriceName, SoldAt } from '@/core/selling';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import type { PricingView } from '@/usecases/selling/pricing';

/** What every part of the pricing screen works with. The same while prices are typed. */
export interface PricingContext {
  readonly pricing: PricingView;
  readonly at: SoldAt<MarketplaceRow>;
  readonly scale: LadderScale;
  /** Sets a price of a name: `null` for none; `unread` is what was typed and is no amount. */
  readonly onPrice: (nameId: number, price: PriceName, minor: number | null, unread?: string | null) => void;
  readonly onEdit: (nameId: number, part: Partial<Draft>) => void;
}

export const Pricing = createContext<PricingContext | null>(null);

export function usePricing(): PricingContext {
  const context = useContext(Pricing);
  if (!context) throw new Error('usePricing outside the pricing screen');
  return context;
}
