'use client';
import { useState } from 'react';
import { startOfDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { BroughtFree, ComingFree } from '@/usecases/acquiring/comingFree';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { bringInComingFreeAction } from '../actions';
import { NameLinks } from './NameLinks';

/** Lists of names that are about to come free, as far as they hold a word of one's ideas. */
export function ListsPart({ lists }: { lists: ComingFree }) {
  const { style } = useLedger();
  return (
    <Section aria-label="About to come free">
      <h2>
        About to come free: {namesWords(lists.fitting.length)} with a word of your ideas, of{' '}
        {lists.listed.toLocaleString('en')} listed
      </h2>
      {lists.fitting.length > 0 && (
        <Wide>
          <Ruled aria-label="Names about to come free">
            <thead>
              <tr>
                <th>Name</th>
                <th>On</th>
                <th>Listed by</th>
                <th>
                  <span className="visually-hidden">Act</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {lists.fitting.map(({ ascii, unicode, onDay, source, notedAt }) => (
                <tr key={ascii}>
                  <td className="name">{unicode}</td>
                  <td className="whole">{onDay === null ? 'not said' : dayWords(startOfDay(onDay), style)}</td>
                  <td>
                    {source}, {dayWords(notedAt, style)}
                  </td>
                  <td className="figure">
                    <NameLinks ascii={ascii} unicode={unicode} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      )}
      <Disclosure summary="Bring in a list">
        <BringIn />
      </Disclosure>
    </Section>
  );
}

function BringIn() {
  const { save, refused, isBusy } = useSave();
  const [brought, setBrought] = useState<BroughtFree | null>(null);
  return (
    <Form
      refused={refused}
      aria-label="A list of names about to come free"
      onSubmit={async (form) => {
        const asked = bringInComingFreeAction(String(form.get('list') ?? ''), String(form.get('source') ?? ''));
        setBrought(await save(asked, 'The list is in.'));
      }}
    >
      <Field name="source" label="Where it comes from" />
      <Field
        name="list"
        label="Names with their days, as a table (CSV) or one a line"
        rows={5}
        mono
        placeholder={'name,date\nkelpkiln.com,2027-03-09'}
      />
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Take it in
        </Button>
      </Actions>
      {brought && (
        <p role="status">
          {namesWords(brought.added)} added, {brought.known} known already
          {brought.refused.length > 0 &&
            `, ${brought.refused.length} refused: ${brought.refused
              .slice(0, 5)
              .map(({ line, problem }) => `line ${line}: ${problem}`)
              .join(' ')}`}
          .
        </p>
      )}
    </Form>
  );
}
