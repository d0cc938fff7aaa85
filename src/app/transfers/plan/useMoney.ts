import { useCallback } from 'react';
import { formatAmount } from '@/ui/text/figures';
import { useLedger } from '../../frame/LedgerProvider';

/** Minor units of the office's currency, as an amount. */
export function useMoney(): (minor: number) => string {
  const { homeCurrency } = useLedger();
  return useCallback((minor) => formatAmount({ minor, currency: homeCurrency }), [homeCurrency]);
}
