'use client';
import { useEffect } from 'react';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Notice, Ruled } from '@/ui/text/Sheet';
import type { ListingRow } from '@/usecases/selling/listings';
import { useSave } from '../../../acts/useSave';
import { proveAction } from '../../actions';

interface ProofPartProps {
  readonly listing: ListingRow;
  readonly where: string;
  readonly linkedAccount: boolean;
}

const PROVED = 'Proved: it is in review now.';

/** What a marketplace wants to see before it believes that a name is ours: a record, or a code that it mails. */
export function ProofPart({ listing, where, linkedAccount }: ProofPartProps) {
  const { ask, save, refused, isBusy } = useSave();
  const { id: listingId, proofText, proofHost } = listing;
  return (
    <Notice data-kind="caution">
      <p>
        Nobody sees it until {where} knows that the name is yours.{' '}
        {listing.proofSetAt
          ? 'The record was set by your registrar’s link; the marketplace looks for it again by itself.'
          : linkedAccount
            ? 'The registrar’s link could not set the record. Set it at your registrar.'
            : 'Set this record at your registrar:'}
      </p>
      {proofText && <RecordToSet host={proofHost} text={proofText} />}
      <Form
        aria-label="Code from the mail"
        refused={refused}
        onSubmit={async (form) =>
          void (await save(proveAction({ listingId, by: 'mail', code: textOf(form, 'code') }), PROVED))
        }
      >
        <Actions>
          <Button isDisabled={isBusy} onPress={() => void ask(proveAction({ listingId, by: 'txt' }), PROVED)}>
            {isBusy ? 'Asking there…' : 'Look for the record now'}
          </Button>
          <Button
            isDisabled={isBusy}
            onPress={() =>
              void ask(proveAction({ listingId, by: 'mail' }), 'A code is mailed to the registrant’s address.')
            }
          >
            Mail a code to the registrant
          </Button>
          <Field name="code" label="Code from the mail" mono />
          <Button type="submit" isDisabled={isBusy}>
            Prove by the code
          </Button>
        </Actions>
      </Form>
    </Notice>
  );
}

/** The record as it is typed at a registrar. C copies its text. */
function RecordToSet({ host, text }: { host: string | null; text: string }) {
  const copy = () =>
    void navigator.clipboard
      .writeText(text)
      .then(() => report({ text: 'Copied.' }))
      .catch(() => report({ text: 'It could not be copied: mark the text and copy it by hand.', problem: true }));
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea, [role=dialog]');
      if (event.key === 'c' && !isTyping && !event.ctrlKey && !event.metaKey && !event.altKey) copy();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
  return (
    <Ruled aria-label="The record to set">
      <tbody>
        <tr>
          <th scope="row">type</th>
          <td className="name">TXT</td>
        </tr>
        <tr>
          <th scope="row">host</th>
          <td className="name">{host} (or @)</td>
        </tr>
        <tr>
          <th scope="row">text</th>
          <td>
            <code>{text}</code>{' '}
            <Button data-kind="plain" onPress={copy}>
              Copy (C)
            </Button>
          </td>
        </tr>
      </tbody>
    </Ruled>
  );
}
