'use client';
import { Page } from '@/ui/text/Sheet';
import type { FeedRow } from '@/usecases/calendar/feed';
import type { Settings } from '@/usecases/settings';
import { useTitle } from '../../frame/PageTitle';
import { CalendarPart } from './CalendarPart';
import { MailboxPart } from './MailboxPart';
import { RemindersForm } from './RemindersForm';

/** How the office is told of deadlines: by mail, and in its calendar. */
export function MailScreen({
  settings,
  feed,
  base,
}: {
  settings: Settings;
  feed: FeedRow | null;
  /** Where this program is reached now. */
  base: string;
}) {
  useTitle('Mail and calendar', 'how you are told of deadlines');
  return (
    <Page>
      <RemindersForm settings={settings} />
      <MailboxPart settings={settings} />
      <CalendarPart feed={feed} base={base} alarmDays={settings.alarmDays} />
    </Page>
  );
}
