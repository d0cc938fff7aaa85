'use client';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { ListedChange } from '@/usecases/accounts/prices';
import { useSave } from '../../../acts/useSave';
import { importPricesAction, previewPricesAction } from '../../actions';
import { moreOf } from './moreOf';

const MOST_ROWS = 200;

/** A price list, pasted or from a file: what it would bring is seen before anything is written. */
export function BringPrices({ accountId }: { accountId: number }) {
  const preview = useSave();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [text, setText] = useState('');
  const [source, setSource] = useState('');
  const [changes, setChanges] = useState<readonly ListedChange[] | null>(null);
  const edit = (next: string) => {
    setText(next);
    setChanges(null);
  };
  const look = async () => {
    const found = await preview.save(
      previewPricesAction(accountId, text, source),
      (rows) => `${rows.length} prices read.`,
    );
    setChanges(found);
  };
  const write = async () => {
    const written = await save(importPricesAction(accountId, text, source), (count) => `${count} prices brought in.`);
    if (written !== null) edit('');
  };
  return (
    <details>
      <summary>Bring in a price list</summary>
      <Form aria-label="Bring in a price list" refused={preview.refused ?? refused} onSubmit={look}>
        <p className="soft">
          A table with headings: ending; register, renew, transfer, restore, privacy, extra mailbox; and if you like
          first year, condition, 2 years, register 3 years, currency, from, fee included, included, source.
        </p>
        <Field name="text" label="Price list" value={text} onChange={edit} rows={5} mono />
        <Fields>
          <Field label="Where it was seen" value={source} onChange={setSource} placeholder="its page of prices" />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={preview.isBusy}>
            See what it brings
          </Button>
          <FileTrigger
            acceptedFileTypes={['.csv', 'text/csv']}
            onSelect={async (files) => edit((await files?.[0]?.text()) ?? '')}
          >
            <Button>Choose a file…</Button>
          </FileTrigger>
        </Actions>
        {changes && <ChangesTable changes={changes} />}
        {changes && (
          <Actions>
            <Button data-kind="primary" isDisabled={isBusy} onPress={() => void write()}>
              Write {changes.length} {changes.length === 1 ? 'price' : 'prices'}
            </Button>
          </Actions>
        )}
      </Form>
    </details>
  );
}

function ChangesTable({ changes }: { changes: readonly ListedChange[] }) {
  return (
    <Wide>
      <Ruled aria-label="What the list brings">
        <thead>
          <tr>
            <th>Ending</th>
            <th>For</th>
            <th className="figure">Known</th>
            <th className="figure">A year</th>
            <th>More</th>
            <th>From</th>
            <th>Outcome</th>
          </tr>
        </thead>
        <tbody>
          {changes.slice(0, MOST_ROWS).map(({ price, knownMinor, outcome }) => (
            <tr key={`${price.ending} ${price.action} ${price.item} ${price.from}`} data-off={outcome === 'same'}>
              <td className="name">.{price.ending}</td>
              <td>{price.item || price.action}</td>
              <td className="figure">
                {knownMinor === null ? '–' : formatAmount({ minor: knownMinor, currency: price.currency })}
              </td>
              <td className="figure">{formatAmount({ minor: price.yearMinor, currency: price.currency })}</td>
              <td className="soft">{moreOf(price)}</td>
              <td>{formatDay(price.from)}</td>
              <td>{outcome}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}
