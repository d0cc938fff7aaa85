'use client';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { formatAmount } from '@/ui/text/figures';
import { dayWords, mailWords, untilWords, yearsWords } from '@/ui/text/words';
import type { ReviewItem } from '@/usecases/acquiring/review';
import { useLedger } from '../../frame/LedgerProvider';
import type { Choice as Chosen } from './useReview';

const Card = styled.article`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 18px;
  padding: 12px 0 14px;
  border-top: 1px solid var(--rule);
  &[data-left='true'] { opacity: 0.6; }
  & p { margin: 0; }
`;

const Spelt = styled.h3`
  margin: 0;
  font-size: 1.45rem;
  letter-spacing: 0.14em;
  overflow-wrap: anywhere;
  & i { font-style: normal; background: var(--caution-pale); color: var(--caution); }
  & s { color: var(--caution); }
  @media (max-width: 640px) { font-size: 1.2rem; letter-spacing: 0.05em; }
`;

const Sum = styled.div`
  text-align: right;
  font-family: var(--mono);
  font-size: 1.15rem;
  &[data-own='true'] > b { border-bottom: 3px double var(--ink); }
`;

const Whole = styled.div`grid-column: 1 / -1; display: flex; flex-direction: column; gap: 6px;`;
const Terms = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  & > :is(div, span) { min-width: 150px; }
`;

interface NamePartProps {
  readonly item: ReviewItem;
  readonly isLeft: boolean;
  readonly onLeave: (isOut: boolean) => void;
  readonly onChoose: (change: Chosen) => void;
  readonly onRemove: () => Promise<void>;
}

/** One name of the review: letter by letter, where, for how long, for how much, and what follows from it. */
export function NamePart({ item, isLeft, onLeave, onChoose, onRemove }: NamePartProps) {
  const { meta } = useLedger();
  const { wanted, spelling, meant, price, problem, accountIds, accountId, terms, years } = item;
  const labels = new Map((meta?.rules.accounts ?? []).map(({ id, label }) => [id, label]));
  const notes = [
    ...meant.map((one) => `${one.piece}: did you mean ${one.meant}? That stands in your names or ideas`),
    ...spelling.notes.map(({ text }) => text),
  ];
  return (
    <Card data-left={isLeft} aria-label={wanted.unicode}>
      <div>
        <SpeltName item={item} />
        {spelling.aloud && <p className="soft">{spelling.aloud}</p>}
        {notes.length > 0 && <p className={meant.length > 0 ? 'caution' : undefined}>{notes.join(' · ')}</p>}
        {wanted.ascii !== wanted.unicode && <p className="name soft">{wanted.ascii}</p>}
        {wanted.note !== '' && <p className="soft">{wanted.note}</p>}
      </div>
      <PriceLine item={item} />
      <Whole>
        {problem !== '' && <p className="caution">{problem}</p>}
        <Terms>
          <Choice
            label={`Account for ${wanted.unicode}`}
            hideLabel
            value={accountId === null ? null : String(accountId)}
            placeholder="no account sells it"
            onChange={(id) => onChoose({ accountId: Number(id) })}
            options={accountIds.map((id) => ({ value: String(id), text: `at ${labels.get(id) ?? id}` }))}
          />
          <Choice
            label={`Term for ${wanted.unicode}`}
            hideLabel
            value={String(years)}
            onChange={(term) => onChoose({ years: Number(term) })}
            options={terms.map((term) => ({ value: String(term), text: `for ${yearsWords(term)}` }))}
          />
          <Check isSelected={item.autoRenew} onChange={(autoRenew) => onChoose({ autoRenew })}>
            Auto-renew on
          </Check>
          <Check isSelected={item.privacy} onChange={(privacy) => onChoose({ privacy })}>
            With privacy
          </Check>
          <Check isSelected={!isLeft} onChange={(isIn) => onLeave(!isIn)} aria-label={`Register ${wanted.unicode} now`}>
            Now
          </Check>
          <Button
            data-kind="plain"
            onPress={() => void onRemove()}
            aria-label={`Take ${wanted.unicode} off the shortlist`}
          >
            Take off
          </Button>
        </Terms>
        {price !== null && problem === '' && <Follows item={item} />}
        <details>
          <summary>
            Name servers: {item.nameServers.trim() === '' ? 'those of the registrar' : item.nameServers}
          </summary>
          <Field
            label={`Name servers of ${wanted.unicode}, one a line`}
            rows={2}
            defaultValue={item.nameServers}
            onBlur={(event) => {
              const nameServers = (event.target as unknown as HTMLTextAreaElement).value;
              if (nameServers !== item.nameServers) onChoose({ nameServers });
            }}
          />
        </details>
      </Whole>
    </Card>
  );
}

/** Letters that stand only in the name are marked, those that only were typed are struck out. */
function SpeltName({ item: { beside, wanted } }: { item: ReviewItem }) {
  const differs = beside.length > 1;
  return (
    <>
      <Spelt className="name">
        {beside.map(({ text, where }, i) =>
          where === 'both' ? (
            text
          ) : where === 'name' ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no other key
            <i key={i}>{text}</i>
          ) : (
            // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no other key
            <s key={i}>{text}</s>
          ),
        )}
      </Spelt>
      {differs && <p className="caution">It differs from what was typed first: {wanted.typed}.</p>}
    </>
  );
}

function PriceLine({ item: { price, privacyPrice, privacy } }: { item: ReviewItem }) {
  if (price === null) return <Sum>no price</Sum>;
  const lines = [
    price.by === 'link' ? 'asked just now by link' : 'by the price list: not asked there',
    price.home === null ? '' : `about ${formatAmount(price.home)}`,
    price.fee ? `fee ${formatAmount({ minor: price.fee, currency: price.total.currency })}` : '',
    price.tax ? `tax ${formatAmount({ minor: price.tax, currency: price.total.currency })}` : '',
    privacy ? (privacyPrice ? `privacy ${formatAmount(privacyPrice)} besides` : 'what privacy costs is not known') : '',
  ].filter((text) => text !== '');
  return (
    <div>
      <Sum data-own={price.isOwnPrice}>
        <b>{formatAmount(price.total)}</b>
      </Sum>
      {lines.map((line) => (
        <p key={line} className="soft figure" style={{ textAlign: 'right' }}>
          {line}
        </p>
      ))}
    </div>
  );
}

/** The new end, the next renewal, until when it can be given back, whose name it is in, and by when the mail is to be confirmed. */
function Follows({ item }: { item: ReviewItem }) {
  const { style, today } = useLedger();
  const { price, years, newEnd, refundUntil, holder, holderMail, confirmMailBy, autoRenew } = item;
  const renewal = price?.renewal
    ? `${formatAmount(price.renewal)} for each ${price.by === 'link' && years > 1 ? `${yearsWords(years)} more` : 'year more'}`
    : 'what each further year costs is not known';
  return (
    <>
      {price?.listed && (
        <p className="caution">Its price list says {formatAmount(price.listed)}. What is asked now counts.</p>
      )}
      {price?.isOwnPrice && <p>A price of its own, and so are its renewals.</p>}
      {price?.condition && price.condition !== 'any term' && <p>This first price: {price.condition}.</p>}
      <p>
        Until {dayWords(newEnd, style)}, then {renewal}
        {autoRenew ? '' : '; auto-renew stays off: it lapses then'}.{' '}
        {refundUntil === null
          ? 'It cannot be given back for its price there.'
          : `It can be given back for its price until ${untilWords(refundUntil, style)}.`}
      </p>
      <p>
        {holder === null ? 'In whose name is not said: set it on the account' : `In the name of ${holder}`}
        {holderMail === null ? '' : `, ${holderMail}`}.{' '}
        {confirmMailBy === null ? 'That address is confirmed there.' : mailWords(confirmMailBy, today, style)}
      </p>
    </>
  );
}
