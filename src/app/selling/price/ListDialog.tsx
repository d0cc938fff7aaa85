'use client';
import { type Draft, type Drafts, leadingPrice, type PricedName, priceDraft, pricesFarOff } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Notice, Ruled } from '@/ui/text/Sheet';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { namesWords } from '@/ui/text/words';
import { likeOf } from './likeOf';
import { usePricing } from './PricingContext';

const SHOWN = 12;

interface ListDialogProps {
  readonly names: readonly PricedName[];
  readonly drafts: Drafts;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly onList: () => void;
}

/** Before names are listed: which, for how much, what happens then; and prices that stand far from all others are asked about. */
export function ListDialog({ isOpen, onClose, ...rest }: ListDialogProps) {
  const where = usePricing().at.marketplace?.label ?? 'the office';
  return (
    <Dialog title={`List ${namesWords(rest.names.length)} at ${where}?`} isOpen={isOpen} onClose={onClose}>
      {isOpen && <Listing {...rest} onClose={onClose} />}
    </Dialog>
  );
}

function Listing({ names, drafts, onClose, onList }: Omit<ListDialogProps, 'isOpen'>) {
  const { pricing, at } = usePricing();
  const { marketplace, currency } = at;
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const ready = names.flatMap((name) => {
    const draft = drafts.get(name.nameId);
    const stops = draft && priceDraft(name, draft, at, pricing).findings.some((finding) => finding.stops);
    return draft && !stops ? [{ name, draft, asked: askedOf(draft) }] : [];
  });
  const far = ready.flatMap(({ name, draft }) =>
    pricesFarOff(draft, likeOf(name, currency, pricing)?.medianMinor ?? null).map((off) => ({ name, off })),
  );
  return (
    <>
      <p>
        {namesWords(ready.length)} {ready.length === 1 ? 'is' : 'are'} offered to everybody
        {marketplace &&
          `, after a review of up to ${marketplace.reviewHours} hours and once it is proved that they are yours`}
        . Whoever pays a price that can be bought at buys: a sale binds. They are taken back by Withdraw, until somebody
        has bought.
        {names.length > ready.length && ` ${namesWords(names.length - ready.length)} to mend first: kept as drafts.`}
      </p>
      {far.length > 0 && (
        <Notice data-kind="caution">
          <p>
            {far.length === 1 ? 'One price stands' : `${far.length} prices stand`} far from what like names were sold
            for. Is that meant?
          </p>
          <ul>
            {far.slice(0, SHOWN).map(({ name, off }) => (
              <li key={`${name.nameId} ${off.price}`}>
                <span className="name">{name.unicode}</span>: {PRICE_WORDS[off.price]} {money(off.minor)} is {off.times}{' '}
                times as {off.isMore ? 'much' : 'little'} as {money(off.likeMinor)}
              </li>
            ))}
          </ul>
        </Notice>
      )}
      <Ruled aria-label="What is listed">
        <tbody>
          {ready.slice(0, SHOWN).map(({ name, draft, asked }) => (
            <tr key={name.nameId}>
              <td className="name">{name.unicode}</td>
              <td className="soft">{draft.kind}</td>
              <td className="figure">
                {asked ? `${PRICE_WORDS[asked.price]} ${money(asked.minor)}` : 'open to offers'}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {ready.length > SHOWN && <p className="soft">and {namesWords(ready.length - SHOWN)} more</p>}
      <Actions>
        <Button
          data-kind="primary"
          isDisabled={ready.length === 0}
          onPress={() => {
            onClose();
            onList();
          }}
        >
          {far.length > 0 ? 'List them all the same' : 'List them'}
        </Button>
        <Button onPress={onClose}>Not yet</Button>
      </Actions>
    </>
  );
}

/** The price that a buyer is asked for first. */
function askedOf({ kind, prices }: Draft) {
  const price = leadingPrice(kind) ?? 'asking';
  const minor = prices[price];
  return minor === null ? null : { price, minor };
}
