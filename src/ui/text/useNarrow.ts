'use client';
import { useSyncExternalStore } from 'react';

const NARROW = '(max-width: 480px)';

function listen(changed: () => void): () => void {
  const query = matchMedia(NARROW);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** True in a window as narrow as a telephone, where a row of columns becomes two lines. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    listen,
    () => matchMedia(NARROW).matches,
    () => false,
  );
}
