'use client';
import { useEffect, useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { termEndWords } from '@/ui/text/words';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';
import { sayAutoRenewAction } from './actions';
import { FirstOf } from './FirstOf';

const SHOWN = 200;

type Said = '' | 'on' | 'off';

/** Names of which nobody has said whether the registrar renews them by itself: on or off beside each, or for all of them. */
export function AutoRenewPart({ count }: { count: number }) {
  const { worker, meta, style } = useLedger();
  const [rows, setRows] = useState<readonly RowView[]>([]);
  const [said, setSaid] = useState<ReadonlyMap<number, Said>>(new Map());
  const { ask, isBusy } = useSave({ ledger: true });
  useEffect(() => {
    if (worker && meta) void worker.unknownNames('setting', SHOWN).then(setRows);
  }, [worker, meta]);
  const account = (id: number) => meta?.rules.accounts.find((one) => one.id === id)?.label ?? '';
  const sayAll = (to: Said) => setSaid(new Map(rows.map(({ name }) => [name.id, to])));
  const send = async (form: FormData) => {
    for (const setting of ['on', 'off'] as const) {
      const nameIds = [...said].filter(([, to]) => to === setting).map(([id]) => id);
      if (nameIds.length === 0) continue;
      const asked = sayAutoRenewAction({ nameIds, what: 'auto-renew', setting, evidence: textOf(form, 'evidence') });
      if ((await ask(asked, ({ summary }) => `${summary}.`)) === null) return;
    }
    setSaid(new Map());
  };
  return (
    <Section id="auto-renew" aria-label="Auto-renew">
      <h2>Auto-renew of {countOf(count, 'name', 'names').toLowerCase()} is not known</h2>
      <Form aria-label="Auto-renew" refused={null} onSubmit={send}>
        <Actions>
          <Button onPress={() => sayAll('on')}>All of them are on</Button>
          <Button onPress={() => sayAll('off')}>All of them are off</Button>
        </Actions>
        <Ruled data-middle data-list aria-label="Names whose auto-renew is not known">
          <thead>
            <tr>
              <th style={{ width: '34%' }}>Name</th>
              <th>Account</th>
              <th>Term ends</th>
              <th style={{ width: 260 }}>The registrar shows auto-renew</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, termEnd }) => (
              <tr key={name.id}>
                <td>
                  <Link href={namePage(name.ascii)} className="name">
                    {name.unicode}
                  </Link>
                </td>
                <td>{account(name.accountId)}</td>
                <td data-said="ends">
                  {termEnd ? termEndWords(termEnd, style) : <span className="soft">not known</span>}
                </td>
                <td>
                  <Choice<Said>
                    label={`Auto-renew of ${name.unicode}`}
                    hideLabel
                    value={said.get(name.id) ?? ''}
                    onChange={(to) => setSaid(new Map(said).set(name.id, to))}
                    options={[
                      { value: '', text: 'not known' },
                      { value: 'on', text: 'on' },
                      { value: 'off', text: 'off' },
                    ]}
                  />
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
          <Button type="submit" data-kind="primary" isDisabled={isBusy || ![...said.values()].some((to) => to !== '')}>
            Save auto-renew
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
