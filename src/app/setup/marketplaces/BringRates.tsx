'use client';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { numberText } from '@/ui/text/figures';
import { Fields } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { RatesPreview, RatesSource } from '@/usecases/rates/rates';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { importRatesAction, previewRatesAction, saveRatesSourceAction } from '../actions';

const BASE_TEXT = 'Its own currency';

/** Rates from a file: what it would bring is seen before anything is written. */
export function BringRates() {
  const preview = useSave();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [text, setText] = useState('');
  const [base, setBase] = useState('EUR');
  const [found, setFound] = useState<RatesPreview | null>(null);
  const edit = (next: string) => {
    setText(next);
    setFound(null);
  };
  const file = { text, base: base.trim().toUpperCase() };
  const look = async () =>
    setFound(await preview.save(previewRatesAction(file), ({ count }) => `${count} rates read.`));
  const write = async () => {
    if ((await save(importRatesAction(file), (count) => `${count} rates brought in.`)) !== null) edit('');
  };
  return (
    <details>
      <summary>Bring in a file of rates</summary>
      <Form aria-label="Bring in a file of rates" refused={preview.refused ?? refused} onSubmit={look}>
        <p className="soft">
          A table with headings day, currency, rate and, if you like, into; or a central bank’s reference rates, as XML
          or as a table with a column for each currency.
        </p>
        <Field name="text" label="Rates" value={text} onChange={edit} rows={5} mono />
        <Fields>
          <Field
            name="base"
            label={BASE_TEXT}
            value={base}
            onChange={(next) => {
              setBase(next);
              setFound(null);
            }}
            hint="of a bank whose table has a column for each currency"
          />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={preview.isBusy}>
            See what it brings
          </Button>
          <FileTrigger
            acceptedFileTypes={['.csv', '.xml', 'text/csv', 'text/xml', 'application/xml']}
            onSelect={async (files) => edit((await files?.[0]?.text()) ?? '')}
          >
            <Button>Choose a file…</Button>
          </FileTrigger>
        </Actions>
        {found && (
          <>
            <p>
              {found.firstDay === found.lastDay
                ? `On ${formatDay(found.lastDay)}: `
                : `From ${formatDay(found.firstDay)} to ${formatDay(found.lastDay)}; on the last day `}
              {found.newest
                .map(({ currency, into, factor }) => `1 ${currency} = ${numberText(factor)} ${into}`)
                .join(', ')}
              .
              {found.leftOut > 0 &&
                ` Left out: ${found.leftOut === 1 ? 'one currency' : `${found.leftOut} currencies`} in which nothing here is priced.`}
            </p>
            <Actions>
              <Button data-kind="primary" isDisabled={isBusy} onPress={() => void write()}>
                Write {found.count === 1 ? 'one rate' : `${found.count} rates`}
              </Button>
            </Actions>
          </>
        )}
      </Form>
    </details>
  );
}

/** Where rates are read every day, and how that went. */
export function DailyRates({ source }: { source: RatesSource | null }) {
  const { style } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const read = async (form: FormData) => {
    await save(
      saveRatesSourceAction({ url: textOf(form, 'url'), base: textOf(form, 'base').toUpperCase() }),
      (count) => (count === 0 ? 'Rates are read no more.' : `${count} rates read; from now on daily.`),
    );
  };
  return (
    <details>
      <summary>Read rates every day</summary>
      <Form aria-label="Read rates every day" refused={refused} onSubmit={read}>
        {source && (
          <p className={source.problem === null ? 'soft' : 'caution'}>
            {source.problem ??
              (source.readAt === null
                ? 'Not read yet: they are within the hour.'
                : `Read last on ${dayWords(source.readAt, style)}.`)}
          </p>
        )}
        <Fields>
          <Field
            name="url"
            label="Address of the daily rates"
            defaultValue={source?.url ?? ''}
            hint="empty to read them no more"
          />
          <Field name="base" label={BASE_TEXT} defaultValue={source?.base ?? 'EUR'} />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Read them daily
          </Button>
        </Actions>
      </Form>
    </details>
  );
}
