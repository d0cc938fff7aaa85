'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readWholeNumbers } from '@/formats/lists/readWords';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Notice, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { FeedRow } from '@/usecases/calendar/feed';
import { toldRefused } from '../../acts/toldRefused';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { makeCalendarFeedAction, saveOfficeAction, withdrawCalendarFeedAction } from '../actions';

/** The calendar's address: made on demand, shown once, withdrawn when it has got about. */
export function CalendarPart({
  feed,
  base,
  alarmDays,
}: {
  feed: FeedRow | null;
  base: string;
  alarmDays: readonly number[];
}) {
  const router = useRouter();
  const { style } = useLedger();
  const [address, setAddress] = useState<string | null>(null);

  const make = async () => {
    const token = await makeCalendarFeedAction();
    if (toldRefused(token)) return;
    setAddress(`${base}/api/v1/calendar.ics?token=${token}`);
    router.refresh();
  };
  const withdraw = async () => {
    if (toldRefused(await withdrawCalendarFeedAction())) return;
    setAddress(null);
    report({ text: 'The address is withdrawn. Calendars that use it get nothing from now on.' });
    router.refresh();
  };

  const { save, refused, isBusy } = useSave();
  const saveAlarms = (form: FormData) =>
    void save(saveOfficeAction({ alarmDays: readWholeNumbers(textOf(form, 'alarmDays')) }), 'Saved.');

  return (
    <Section aria-label="Calendar of deadlines">
      <h2>Calendar of deadlines</h2>
      <p>
        {feed
          ? `A calendar may subscribe until ${dayWords(feed.expiresAt, style)}. ${feed.readAt ? `Last read ${dayWords(feed.readAt, style)}.` : 'Not read yet.'}`
          : 'A calendar on this machine can subscribe to the next 400 days, at an address that only it knows.'}
      </p>
      {address && (
        <Notice role="status">
          Copy it now, it is not shown again: <code>{address}</code>
        </Notice>
      )}
      <Actions>
        <Button onPress={() => void make()}>{feed ? 'Make a new address' : 'Make an address'}</Button>
        {feed && <Button onPress={() => void withdraw()}>Withdraw the address</Button>}
        <ButtonLink href="/setup/mail/calendar" prefetch={false} download="price-steps.ics">
          Save it as a file
        </ButtonLink>
      </Actions>
      <Form aria-label="Calendar alarms" refused={refused} onSubmit={saveAlarms}>
        <Field
          name="alarmDays"
          label="Calendar alarms, days before"
          defaultValue={alarmDays.join(', ')}
          hint="like 7, 1; empty for none"
        />
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Save the alarms
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
