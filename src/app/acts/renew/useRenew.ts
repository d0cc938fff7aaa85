'use client';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { isRefusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import { planRenewalAction } from './actions';

/** Plans a run for some names, each for so many years, and goes to it. */
export function useRenew(): (
  items: readonly { nameId: number; years: number }[],
  action?: 'renew' | 'restore',
) => Promise<void> {
  const router = useRouter();
  return useCallback(
    async (items, action = 'renew') => {
      const answer = await planRenewalAction(items, action);
      if (isRefusal(answer)) report({ text: answer.message, problem: true });
      else router.push(`/renewals/${answer}`);
    },
    [router],
  );
}
