'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { NUMBER_STYLES } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import type { FeedRow } from '@/usecases/calendar/feed';
import type { Settings } from '@/usecases/settings';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { saveOfficeAction } from '../actions';
import { CalendarPart } from './CalendarPart';
import { RecordServersForm } from './RecordServersForm';
import { RemindersForm } from './RemindersForm';

/** Home currency, time zone, and the calendar of deadlines. */
export function OfficeScreen({
  settings,
  feed,
  base,
}: {
  settings: Settings;
  feed: FeedRow | null;
  /** Where this program is reached now. */
  base: string;
}) {
  useTitle('Office and calendar');
  const router = useRouter();
  const { reload } = useLedger();
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [numberStyle, setNumberStyle] = useState(settings.numberStyle);
  const problem = (field: string) => (refused?.field?.startsWith(field) ? refused.message : null);

  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const answer = await saveOfficeAction({
      homeCurrency: String(form.get('homeCurrency')).trim().toUpperCase(),
      zone: String(form.get('zone')).trim(),
      numberStyle,
      alarmDays: String(form.get('alarmDays'))
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number),
      dropReasons: String(form.get('dropReasons') ?? '')
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    report({ text: 'Saved.' });
    router.refresh();
    await reload();
  };

  return (
    <Page>
      <form onSubmit={(event) => void save(event)}>
        <Section>
          <Fields>
            <Field
              name="homeCurrency"
              label="Home currency"
              defaultValue={settings.homeCurrency}
              problem={problem('homeCurrency')}
            />
            <Field
              name="zone"
              label="Time zone"
              defaultValue={settings.zone}
              hint="like Europe/Lisbon"
              problem={problem('zone')}
            />
            <Choice
              label="Figures are written"
              value={numberStyle}
              onChange={setNumberStyle}
              hint="and so are read when typed"
              options={NUMBER_STYLES.map((style) => ({ value: style, text: style }))}
            />
            <Field
              name="alarmDays"
              label="Calendar alarms, days before"
              defaultValue={settings.alarmDays.join(', ')}
              hint="like 7, 1; empty for none"
              problem={problem('alarmDays')}
            />
            <Field
              name="dropReasons"
              label="Reasons for dropping names"
              defaultValue={settings.dropReasons.join('\n')}
              rows={4}
              hint="one a line"
              problem={problem('dropReasons')}
            />
          </Fields>
          <Actions>
            <Button type="submit" data-kind="primary">
              Save
            </Button>
          </Actions>
        </Section>
      </form>
      <RemindersForm settings={settings} />
      <RecordServersForm records={settings.records} />
      <CalendarPart feed={feed} base={base} />
    </Page>
  );
}
