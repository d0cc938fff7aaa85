'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { readPercent } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { type BuyNowEnd, USUAL_AUCTION } from '@/core/selling';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { typedAmount, typedMinor } from '@/ui/text/figures';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import type { VenueRow } from '@/usecases/venues/venues';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { removeVenueLinkAction, saveVenueAction, saveVenueLinkAction, testVenueAction } from '../../actions';

interface Held {
  readonly id: number;
  readonly label: string;
}

/** One venue: what it keeps, what it takes, its list, and its link. */
export function VenueScreen({
  venue,
  accounts,
  fields,
}: {
  venue: VenueRow | null;
  accounts: readonly Held[];
  fields: readonly string[];
}) {
  useTitle(venue?.label ?? 'New venue', venue ? 'a venue' : '');
  return (
    <Page>
      <VenueFormPart venue={venue} accounts={accounts} fields={fields} />
      {venue && <LinkPart venue={venue} />}
    </Page>
  );
}

/** `500 12` on each line: above that price another percentage is kept. */
function readSteps(text: string, currency: string): { fromMinor: number; percent: number }[] {
  return lines(text).map((line) => {
    // The share stands last: thousands may be set apart by a space.
    const [, from = '', percent = ''] = /^(.*?)[\s;:]+(\S+?\s*%?)$/.exec(line) ?? [];
    return { fromMinor: typedMinor(from, currency) ?? Number.NaN, percent: percentOf(percent) };
  });
}

/** `NaN` for what is no percentage. */
function percentOf(text: string): number {
  const percent = readPercent(text);
  return isRefusal(percent) ? Number.NaN : percent;
}

const lines = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

function VenueFormPart({
  venue,
  accounts,
  fields,
}: {
  venue: VenueRow | null;
  accounts: readonly Held[];
  fields: readonly string[];
}) {
  const router = useRouter();
  const { homeCurrency } = useLedger();
  const [wholeUnits, setWhole] = useState(venue?.wholeUnits ?? true);
  const [payoutSet, setPayout] = useState(venue?.payoutSet ?? false);
  const [buyNowEnds, setBuyNowEnds] = useState(venue?.buyNowEnds ?? USUAL_AUCTION.buyNowEnds);
  const [accountId, setAccount] = useState(venue?.accountId ?? null);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [currency, setCurrency] = useState(venue?.feesCurrency ?? homeCurrency);
  const money = (minor: number) => typedAmount({ minor, currency: venue?.feesCurrency ?? homeCurrency });
  const problem = (...keys: string[]) =>
    refused?.field && keys.includes(refused.field.split('.')[0] ?? '') ? refused.message : null;

  const amount = (
    label: string,
    name: string,
    key: 'floorMinor' | 'saleFeeMinor' | 'listingFeeMinor' | 'membershipMinor' | 'categoryMinor',
  ) => (
    <AmountField
      label={label}
      name={name}
      currency={currency}
      amount={venue?.[key] ? { minor: venue[key], currency: venue.feesCurrency } : null}
      problem={problem(key)}
    />
  );

  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (key: string) => String(form.get(key) ?? '').trim();
    const code = currency;
    const minor = (key: string) => minorIn(form, key) ?? 0;
    const list = (key: string) =>
      text(key)
        .split(/[\s,]+/)
        .filter(Boolean);
    const columns = lines(text('csvColumns')).map((line) => {
      const [heading = '', field = ''] = line.split('=').map((part) => part.trim());
      return { heading, field };
    });
    const unknown = columns.find(({ field }) => !fields.includes(field));
    if (unknown) {
      setRefused({
        kind: 'refusal',
        code: 'field-unknown',
        field: 'csvColumns',
        message: `“${unknown.field}” is no field. Write heading = field, with one of: ${fields.join(', ')}.`,
      });
      return;
    }
    const answer = await saveVenueAction({
      ...(venue ? { id: venue.id } : {}),
      label: text('label'),
      currencies: list('currencies').map((one) => one.toUpperCase()),
      feesCurrency: code,
      percent: percentOf(text('percent') || '0'),
      floorMinor: minor('floor'),
      steps: readSteps(text('steps'), code),
      saleFeeMinor: minor('saleFee'),
      listingFeeMinor: minor('listingFee'),
      membershipMinor: minor('membership'),
      wholeUnits,
      auctionDays: list('auctionDays').map(Number),
      extensionMinutes: Number(text('extensionMinutes') || USUAL_AUCTION.extensionMinutes),
      buyNowEnds,
      reviewHours: Number(text('reviewHours') || 0),
      payoutSet,
      placements: lines(text('placements')).map((line) => {
        const [label = '', price = ''] = line.split('=').map((part) => part.trim());
        return { label, minor: typedMinor(price, code) ?? Number.NaN };
      }),
      categories: lines(text('categories')),
      categoryMinor: minor('category'),
      network: text('network'),
      ...(accountId === null ? {} : { accountId }),
      ...(columns.length > 0 ? { csvColumns: columns } : {}),
      notes: text('notes'),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    report({ text: 'Saved.' });
    if (venue) router.refresh();
    else router.push(`/setup/venues/${answer}`);
  };

  return (
    <form onSubmit={(event) => void save(event)}>
      <Section>
        <Fields>
          <Field label="Venue" name="label" defaultValue={venue?.label ?? ''} problem={problem('label')} isRequired />
          <Field
            label="Sells in"
            name="currencies"
            defaultValue={venue?.currencies.join(', ') ?? ''}
            hint="codes; empty for any"
            problem={problem('currencies')}
          />
          <Field
            label="Currency of its fees"
            value={currency}
            onChange={(code) => setCurrency(code.trim().toUpperCase())}
            problem={problem('feesCurrency')}
          />
          <Field
            label="Commission, percent"
            name="percent"
            defaultValue={String(venue?.percent ?? '')}
            problem={problem('percent')}
          />
          {amount('Commission at least', 'floor', 'floorMinor')}
          <Field
            label="Steps of the commission"
            name="steps"
            rows={2}
            defaultValue={venue?.steps.map((step) => `${money(step.fromMinor)} ${step.percent}`).join('\n') ?? ''}
            hint="a line each: 2000 12 keeps 12 % of what lies above 2,000"
            problem={problem('steps')}
          />
          {amount('Fee for a sale', 'saleFee', 'saleFeeMinor')}
          {amount('Fee for a listing', 'listingFee', 'listingFeeMinor')}
          {amount('Membership a year', 'membership', 'membershipMinor')}
          <Field
            label="Auctions run, days"
            name="auctionDays"
            defaultValue={venue?.auctionDays.join(', ') ?? ''}
            hint="empty: it holds none"
            problem={problem('auctionDays')}
          />
          <Field
            label="A late bid moves the close, minutes"
            name="extensionMinutes"
            defaultValue={String(venue?.extensionMinutes ?? USUAL_AUCTION.extensionMinutes)}
            hint="0: it never moves"
            problem={problem('extensionMinutes')}
          />
          <Choice<BuyNowEnd>
            label="Buy now in an auction ends"
            value={buyNowEnds}
            onChange={setBuyNowEnds}
            options={[
              { value: 'reserve met', text: 'when the reserve is met' },
              { value: 'first bid', text: 'with the first bid' },
              { value: 'close', text: 'at the close' },
            ]}
          />
          <Field
            label="Review, hours at most"
            name="reviewHours"
            defaultValue={String(venue?.reviewHours ?? 72)}
            problem={problem('reviewHours')}
          />
          <Choice
            label="Account at the venue itself"
            value={accountId === null ? '' : String(accountId)}
            onChange={(id) => setAccount(id === '' ? null : Number(id))}
            hint="names there need no proof"
            options={[
              { value: '', text: 'none' },
              ...accounts.map(({ id, label }) => ({ value: String(id), text: label })),
            ]}
          />
          <Field
            label="Categories"
            name="categories"
            rows={3}
            defaultValue={venue?.categories.join('\n') ?? ''}
            hint="a line each"
          />
          {amount('Each further category costs', 'category', 'categoryMinor')}
          <Field
            label="Paid placements"
            name="placements"
            rows={3}
            defaultValue={venue?.placements.map(({ label, minor }) => `${label} = ${money(minor)}`).join('\n') ?? ''}
            hint="a line each: first page = 40"
            problem={problem('placements')}
          />
          <Field
            label="Partner network"
            name="network"
            defaultValue={venue?.network ?? ''}
            hint="its name, if it has one"
          />
          <Field
            label="Columns of its list (CSV)"
            name="csvColumns"
            rows={4}
            mono
            defaultValue={venue?.csvColumns?.map(({ heading, field }) => `${heading} = ${field}`).join('\n') ?? ''}
            hint="a line each: Price = asking; empty for our own"
            problem={problem('csvColumns')}
          />
          <Field label="Notes" name="notes" rows={4} defaultValue={venue?.notes ?? ''} />
        </Fields>
        <Check isSelected={wholeUnits} onChange={setWhole}>
          Whole units only
        </Check>
        <Check isSelected={payoutSet} onChange={setPayout}>
          Where it pays out to is set there
        </Check>
        <Actions>
          <Button type="submit" data-kind="primary">
            Save
          </Button>
        </Actions>
      </Section>
    </form>
  );
}

function LinkPart({ venue }: { venue: VenueRow }) {
  const router = useRouter();
  const [url, setUrl] = useState(venue.linkUrl ?? '');
  const [key, setKey] = useState('');
  const [refused, setRefused] = useState<Refusal | null>(null);
  const answered = (answer: unknown, words: string) => {
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) {
      if (!answer.field) report({ text: answer.message, problem: true });
      return;
    }
    report({ text: words });
    router.refresh();
  };
  const test = async () => {
    const answer = await testVenueAction(venue.id);
    answered(answer, isRefusal(answer) ? '' : `${answer} answers.`);
  };
  return (
    <Section aria-label="Link">
      <h2>Link</h2>
      <p className="soft">
        Over a link listings are sent and proved, and offers, bids and payments come in by themselves. The protocol is
        in docs/venue-link.md.
      </p>
      {venue.linkProblem && <p className="caution">{venue.linkProblem}</p>}
      <Fields>
        <Field
          label="Address"
          value={url}
          onChange={setUrl}
          problem={refused?.field === 'url' ? refused.message : null}
          mono
        />
        <Field
          label="Key"
          type="password"
          value={key}
          onChange={setKey}
          hint={venue.linkUrl ? 'kept sealed; write it anew to change it' : 'of your account there'}
          problem={refused?.field === 'key' ? refused.message : null}
        />
      </Fields>
      <Actions>
        <Button
          isDisabled={key === ''}
          onPress={async () => answered(await saveVenueLinkAction({ venueId: venue.id, url, key }), 'Linked.')}
        >
          Save the link
        </Button>
        {venue.linkUrl && (
          <>
            <Button onPress={() => void test()}>Test it</Button>
            <Button
              data-kind="caution"
              onPress={async () => {
                await removeVenueLinkAction(venue.id);
                answered(true, 'From now on this venue is kept by hand.');
              }}
            >
              Take the link away
            </Button>
          </>
        )}
      </Actions>
    </Section>
  );
}
