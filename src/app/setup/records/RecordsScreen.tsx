'use client';
import { Page } from '@/ui/text/Sheet';
import type { Settings } from '@/usecases/settings';
import { useTitle } from '../../frame/PageTitle';
import { RecordServersForm } from './RecordServersForm';

/** Who is asked for registration records. */
export function RecordsScreen({ records }: { records: Settings['records'] }) {
  useTitle('Registration records', 'who is asked for them');
  return (
    <Page>
      <RecordServersForm records={records} />
    </Page>
  );
}
