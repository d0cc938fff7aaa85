'use client';
import { useState } from 'react';
import { NUMBER_STYLES } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import type { Settings } from '@/usecases/settings';
import { useSave } from '../../acts/useSave';
import { useTitle } from '../../frame/PageTitle';
import { saveOfficeAction } from '../actions';

/** In which money the office reckons, how figures are written, and where its days begin. */
export function MoneyScreen({ settings }: { settings: Settings }) {
  useTitle('Money and days');
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [numberStyle, setNumberStyle] = useState(settings.numberStyle);

  const saveOffice = (form: FormData) => {
    const asked = saveOfficeAction({
      homeCurrency: textOf(form, 'homeCurrency').toUpperCase(),
      zone: textOf(form, 'zone'),
      numberStyle,
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
    </Page>
  );
}
