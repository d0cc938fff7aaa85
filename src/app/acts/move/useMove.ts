'use client';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';

const KEY = 'planned names';

/** Plans transfers of some names: goes where they are weighed. They outlive a load of the page, and are too many for its address. */
export function useMove(): (nameIds: readonly number[]) => void {
  const router = useRouter();
  return useCallback(
    (nameIds) => {
      sessionStorage.setItem(KEY, JSON.stringify(nameIds));
      router.push('/transfers/plan?names=chosen');
    },
    [router],
  );
}

/** The names that were chosen last to be planned; none where there were none. */
export function namesToMove(): readonly number[] {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? kept.filter((id) => Number.isInteger(id)) : [];
  } catch {
    return [];
  }
}
