'use client';
import { useSyncExternalStore } from 'react';

/** Asked for once: it follows the window by itself. */
let narrow: MediaQueryList | null = null;
function narrowWindow(): MediaQueryList {
  narrow ??= matchMedia('(max-width: 480px)');
  return narrow;
}

function listen(changed: () => void): () => void {
  const query = narrowWindow();
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** True in a window as narrow as a telephone, where a row of columns becomes two lines. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    listen,
    () => narrowWindow().matches,
    () => false,
  );
}
