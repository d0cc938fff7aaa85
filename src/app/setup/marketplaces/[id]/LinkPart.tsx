'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Section } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { removeMarketplaceLinkAction, saveMarketplaceLinkAction, testMarketplaceAction } from '../../actions';

/** The marketplace's address and key: over the link listings, offers and sales go by themselves. */
export function LinkPart({ marketplace }: { marketplace: MarketplaceRow }) {
  const router = useRouter();
  const [key, setKey] = useState('');
  const [refused, setRefused] = useState<Refusal | null>(null);
  const answered = (answer: unknown, words: string) => {
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    report({ text: words });
    router.refresh();
  };
  const test = async () => {
    const answer = await testMarketplaceAction(marketplace.id);
    answered(answer, isRefusal(answer) ? '' : `${answer} answers.`);
  };
  const remove = async () => {
    await removeMarketplaceLinkAction(marketplace.id);
    answered(true, 'From now on this marketplace is kept by hand.');
  };
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
        onSubmit={async (form) =>
          answered(
            await saveMarketplaceLinkAction({
              marketplaceId: marketplace.id,
              url: textOf(form, 'url'),
              key: textOf(form, 'key'),
            }),
            'Linked.',
          )
        }
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
          <Button type="submit">Save the link</Button>
          {marketplace.linkUrl && (
            <>
              <Button onPress={() => void test()}>Test it</Button>
              <Button data-kind="caution" onPress={() => void remove()}>
                Remove the link
              </Button>
            </>
          )}
        </Actions>
      </Form>
    </Section>
  );
}
