'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { useSave } from '../../../acts/useSave';
import { removeMarketplaceLinkAction, saveMarketplaceLinkAction, testMarketplaceAction } from '../../actions';

/** The marketplace's address and key: over the link listings, offers and sales go by themselves. */
export function LinkPart({ marketplace }: { marketplace: MarketplaceRow }) {
  const [key, setKey] = useState('');
  const { save, refused, isBusy } = useSave();
  return (
    <Section aria-label="Link">
      <h2>Link</h2>
      <p className="soft">
        Over a link listings are sent and proved, and offers, bids and payments come in by themselves. The protocol is
        in docs/marketplace-link.md.
      </p>
      {marketplace.linkProblem && <p className="caution">{marketplace.linkProblem}</p>}
      <Form
        aria-label="Link"
        refused={refused}
        onSubmit={async (form) => {
          const saved = await save(
            saveMarketplaceLinkAction({
              marketplaceId: marketplace.id,
              url: textOf(form, 'url'),
              key: textOf(form, 'key'),
            }),
            'Linked.',
          );
          if (saved !== null) setKey('');
        }}
      >
        <Fields>
          <Field name="url" label="Address" defaultValue={marketplace.linkUrl ?? ''} mono />
          <Field
            name="key"
            label="Key"
            type="password"
            value={key}
            onChange={setKey}
            hint={marketplace.linkUrl ? 'kept sealed; write it anew to change it' : 'of your account there'}
          />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            {isBusy ? 'Asking there…' : 'Save the link'}
          </Button>
          {marketplace.linkUrl && (
            <>
              <Button
                onPress={() => void save(testMarketplaceAction(marketplace.id), (answer) => `${answer} answers.`)}
              >
                Test it
              </Button>
              <Button
                data-kind="caution"
                onPress={() =>
                  void save(
                    removeMarketplaceLinkAction(marketplace.id),
                    'From now on this marketplace is kept by hand.',
                  )
                }
              >
                Remove the link
              </Button>
            </>
          )}
        </Actions>
      </Form>
    </Section>
  );
}
