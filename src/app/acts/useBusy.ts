'use client';
import { useCallback, useState } from 'react';

/** Whether something that was asked is under way, and how it is waited for: it is over also when the answer never comes. */
export function useBusy(): readonly [boolean, <T>(asked: Promise<T>) => Promise<T>] {
  const [isBusy, setBusy] = useState(false);
  const during = useCallback(async <T>(asked: Promise<T>) => {
    setBusy(true);
    try {
      return await asked;
    } finally {
      setBusy(false);
    }
  }, []);
  return [isBusy, during];
}
