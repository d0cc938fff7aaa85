'use client';
import { useEffect, useState } from 'react';
import type { Day } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { DayField } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';
import { sayEndsAction } from './actions';
import { FirstOf } from './FirstOf';

const SHOWN = 100;

/** Names of which nobody has said when the term ends: a day beside each, written all at once. */
export function EndsPart({ count }: { count: number }) {
  const { worker, meta } = useLedger();
  const [rows, setRows] = useState<readonly RowView[]>([]);
  const { save, refused, isBusy } = useSave({ ledger: true });
  useEffect(() => {
    if (worker && meta) void worker.unknownNames('end', SHOWN).then(setRows);
  }, [worker, meta]);
  const account = (id: number) => meta?.rules.accounts.find((one) => one.id === id)?.label ?? '';
  const send = (form: FormData) => {
    const ends = rows.flatMap(({ name }) => {
      const day = String(form.get(`end.${name.id}.day`) ?? '') as Day | '';
      return day === '' ? [] : [{ nameId: name.id, day }];
    });
    void save(sayEndsAction({ ends, evidence: textOf(form, 'evidence') }), ({ summary }) => `${summary}.`);
  };
  return (
    <Section id="ends" aria-label="Ends of term">
      <h2>{countOf(count, 'name has', 'names have')} no end of term</h2>
      <p className="soft">
        Nothing is told of them. A registrar’s list with a column of dates brings them too:{' '}
        <Link href="/ledger/add">bring it</Link>. The registration record says most of them:{' '}
        <Link href="/record">check it</Link>.
      </p>
      <Form aria-label="Ends of term" refused={refused} onSubmit={send}>
        <Ruled data-middle aria-label="Names without an end of term">
          <thead>
            <tr>
              <th style={{ width: '34%' }}>Name</th>
              <th>Account</th>
              <th style={{ width: 260 }}>Term ends</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name }) => (
              <tr key={name.id}>
                <td>
                  <Link href={namePage(name.ascii)} className="name">
                    {name.unicode}
                  </Link>
                </td>
                <td>{account(name.accountId)}</td>
                <td>
                  <DayField name={`end.${name.id}`} label={`Term of ${name.unicode} ends`} hideLabel />
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
        <FirstOf shown={rows.length} count={count} />
        <Fields>
          <Field name="evidence" label="Where you saw it" defaultValue="the registrar’s panel" />
        </Fields>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Save the ends
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
