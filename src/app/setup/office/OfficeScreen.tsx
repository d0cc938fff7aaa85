'use client';
import { useState } from 'react';
import { NUMBER_STYLES } from '@/core/money';
import { readWholeNumbers } from '@/formats/lists/readWords';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import type { FeedRow } from '@/usecases/calendar/feed';
import type { Settings } from '@/usecases/settings';
import { useSave } from '../../acts/useSave';
import { useTitle } from '../../frame/Frame';
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
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [numberStyle, setNumberStyle] = useState(settings.numberStyle);

  const saveOffice = (form: FormData) => {
    const asked = saveOfficeAction({
      homeCurrency: textOf(form, 'homeCurrency').toUpperCase(),
      zone: textOf(form, 'zone'),
      numberStyle,
      alarmDays: readWholeNumbers(textOf(form, 'alarmDays')),
      dropReasons: String(form.get('dropReasons') ?? '')
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
    });
    void save(asked, 'Saved.');
  };

  return (
    <Page>
      <Form aria-label="Office" refused={refused} onSubmit={saveOffice}>
        <Section>
          <Fields>
            <Field name="homeCurrency" label="Home currency" defaultValue={settings.homeCurrency} />
            <Field name="zone" label="Time zone" defaultValue={settings.zone} hint="like Europe/Lisbon" />
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
            />
            <Field
              name="dropReasons"
              label="Reasons for dropping names"
              defaultValue={settings.dropReasons.join('\n')}
              rows={4}
              hint="one a line"
            />
          </Fields>
          <Actions>
            <Button type="submit" data-kind="primary" isDisabled={isBusy}>
              Save
            </Button>
          </Actions>
        </Section>
      </Form>
      <RemindersForm settings={settings} />
      <RecordServersForm records={settings.records} />
      <CalendarPart feed={feed} base={base} />
    </Page>
  );
}
