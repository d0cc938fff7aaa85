'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { sumByCurrency } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import { Empty, Loading } from '@/ui/text/States';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { WantedRow } from '@/usecases/acquiring/wanted';
import { toldRefused } from '../../acts/toldRefused';
import { useSave } from '../../acts/useSave';
import { useTitle } from '../../frame/PageTitle';
import { unwantAction, wantAction } from '../actions';
import { AccountsPart } from './AccountsPart';
import { ConfirmDialog } from './ConfirmDialog';
import { NamePart } from './NamePart';
import { useReview } from './useReview';

/** Names that one means to register: each spelt out, priced now, with everything that follows from it. */
export function ShortlistScreen({ wanted }: { wanted: readonly WantedRow[] }) {
  const names = wanted.slice(0, MOST_AT_ONCE).map(({ ascii }) => ascii);
  useTitle('Acquire', wanted.length === 0 ? 'shortlist' : `shortlist, ${namesWords(wanted.length)}`);
  return (
    <Page>
      {wanted.length === 0 && (
        <Empty
          title="No name is on the shortlist."
          text="Put names on it from the table of candidates, or write one here."
        />
      )}
      {wanted.length > MOST_AT_ONCE && (
        <p className="soft">The first {MOST_AT_ONCE} names. The others come when these are settled.</p>
      )}
      {wanted.length > 0 && <ReviewPart key={names.join(' ')} names={names} />}
      <AddPart />
    </Page>
  );
}

/** As many names as are reviewed at a time. */
const MOST_AT_ONCE = 100;

function ReviewPart({ names }: { names: readonly string[] }) {
  const router = useRouter();
  const review = useReview(names);
  const [isConfirming, setConfirming] = useState(false);
  const chosen = review.items.filter(review.isIn);
  const sums = sumByCurrency(
    chosen.flatMap(({ price, privacyPrice }) => [price?.total ?? [], privacyPrice ?? []].flat()),
  );
  if (review.review === null) return <Loading text="Asking the registrars what these names cost now" />;
  const purposes = [...new Set(review.items.map(({ wanted: { purpose } }) => purpose))];
  return (
    <>
      {purposes.map((purpose) => (
        <Section key={purpose} aria-label={purpose === '' ? 'Names' : purpose}>
          {purpose !== '' && <h2>{purpose}</h2>}
          {review.items
            .filter(({ wanted }) => wanted.purpose === purpose)
            .map((item) => (
              <NamePart
                key={item.wanted.ascii}
                item={item}
                isLeft={review.isLeft(item.wanted.ascii)}
                onLeave={(isOut) => review.leave(item.wanted.ascii, isOut)}
                onChoose={(change) => review.choose(item.wanted.ascii, change)}
                onRemove={async () => {
                  if (!toldRefused(await unwantAction([item.wanted.ascii]))) router.refresh();
                }}
              />
            ))}
        </Section>
      ))}
      {review.review && <AccountsPart review={review.review} payBy={review.payBy} onPayBy={review.setPayBy} />}
      <Actions>
        <Button
          data-kind="primary"
          isDisabled={review.isBusy}
          onPress={() => (chosen.length === 0 ? void review.readAgain() : setConfirming(true))}
        >
          {chosen.length === 0
            ? 'Ask for prices again'
            : `Register ${namesWords(chosen.length)} for ${amountsWords(sums)}…`}
        </Button>
        {chosen.length > 0 && (
          <Button isDisabled={review.isBusy} onPress={() => void review.readAgain()}>
            Ask for prices again
          </Button>
        )}
      </Actions>
      {review.review && (
        <ConfirmDialog
          items={chosen}
          accounts={review.review.accounts}
          sums={sums}
          isOpen={isConfirming}
          isBusy={review.isBusy}
          onClose={() => setConfirming(false)}
          onRegister={async (once) => {
            await review.register(once);
            setConfirming(false);
          }}
        />
      )}
    </>
  );
}

/** A name is put on the list as it is typed; what was typed first stands beside it from then on. */
function AddPart() {
  const { save, refused, isBusy } = useSave();
  const [made, setMade] = useState(0);
  return (
    <Section aria-label="Another name">
      <h2>Another name</h2>
      <Form
        key={made}
        refused={refused}
        onSubmit={async (form) => {
          const name = String(form.get('name') ?? '');
          const asked = wantAction({
            names: [{ name, typed: name }],
            purpose: String(form.get('purpose') ?? ''),
            note: String(form.get('note') ?? ''),
          });
          if ((await save(asked, 'It is on the shortlist.')) !== null) setMade(made + 1);
        }}
      >
        <Fields>
          <Field name="name" label="Name" mono />
          <Field name="purpose" label="For" hint="names for one purpose stand together" />
          <Field name="note" label="Why" />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Put it on the shortlist
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
