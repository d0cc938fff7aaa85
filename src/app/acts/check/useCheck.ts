'use client';
import { useCallback } from 'react';
import { report } from '@/ui/overlay/Toasts';
import { namesWords } from '@/ui/text/words';
import type { RowView } from '../../frame/views';
import { checkNamesAction } from './actions';

/** Checks the registration records of names, and says where what differs will stand. */
export function useCheck(): (rows: readonly RowView[]) => Promise<void> {
  return useCallback(async (rows) => {
    await checkNamesAction(rows.map((row) => row.name.ascii));
    report({
      text: `${namesWords(rows.length)} asked for at the registries. What differs stands under Registration record.`,
    });
  }, []);
}
