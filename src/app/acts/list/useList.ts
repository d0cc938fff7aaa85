'use client';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { report } from '@/ui/overlay/Toasts';

/** As many names as are priced at a time. */
const MOST_LISTED = 500;

/** Lists names for sale: goes where they are priced. */
export function useList(): (nameIds: readonly number[]) => void {
  const router = useRouter();
  return useCallback(
    (nameIds) => {
      if (nameIds.length > MOST_LISTED)
        report({ text: `List up to ${MOST_LISTED} names at a time. Choose fewer.`, problem: true });
      else router.push(`/selling/price?names=${nameIds.join(',')}`);
    },
    [router],
  );
}
