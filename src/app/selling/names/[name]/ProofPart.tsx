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
import { lookForProofAction, placeProofAction, proveAction } from '../../actions';

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

/** A marketplace without a link says there what it wants to see: the text is taken from there, placed, and looked for. */
export function ProofByHandPart({ listing, where, linkedAccount }: ProofPartProps) {
  const { ask, save, refused, isBusy } = useSave();
  const { id: listingId, proofText, proofHost, proofSetAt } = listing;
  return (
    <Notice data-kind="caution">
      <p>
        {where} has no link. Enter the name there (Listings saves its list as CSV).{' '}
        {proofText
          ? proofSetAt
            ? 'The record it wants to see was set by your registrar’s link.'
            : 'Set the record it wants to see at your registrar:'
          : 'It shows a text that it wants to see in the zone of the name: copy it here.'}
      </p>
      {proofText && <RecordToSet host={proofHost} text={proofText} />}
      <Form
        aria-label="The text that the marketplace wants to see"
        refused={refused}
        onSubmit={async (form) =>
          void (await save(placeProofAction({ listingId, text: textOf(form, 'text') }), ({ isSet }) =>
            isSet ? 'Set by your registrar’s link.' : 'Kept. Set it at your registrar.',
          ))
        }
      >
        <Actions style={{ alignItems: 'end' }}>
          <Field name="text" label={`Text from ${where}`} mono defaultValue={proofText ?? ''} />
          <Button type="submit" data-kind={proofText ? undefined : 'primary'} isDisabled={isBusy}>
            {linkedAccount ? 'Place it by link' : 'Keep it'}
          </Button>
          {proofText && (
            <Button
              data-kind="primary"
              isDisabled={isBusy}
              onPress={() =>
                void ask(lookForProofAction(listingId), 'It stands in the zone. Tell the marketplace to look.')
              }
            >
              Look for it by DNS now
            </Button>
          )}
        </Actions>
      </Form>
    </Notice>
  );
}
