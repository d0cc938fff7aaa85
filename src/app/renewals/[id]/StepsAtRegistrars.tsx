'use client';
import styled from 'styled-components';
import { numberText } from '@/ui/text/figures';
import { Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords, termEndWords } from '@/ui/text/words';
import type { RenewalQuote } from '@/usecases/orders/quote';
import { useLedger } from '../../frame/LedgerProvider';
import type { PayBy } from './QuoteTotals';

const Steps = styled.ol`
  list-style: decimal;
  padding-left: 20px;
  display: flex;
  flex-direction: column;
  gap: 4px;
`;

/** What to do at each registrar's own site, step by step. */
export function StepsAtRegistrars({ quote, payBy }: { quote: RenewalQuote; payBy: PayBy }) {
  const { style } = useLedger();
  return (
    <Section>
      <h2>At the registrar</h2>
      {quote.accounts.map(({ account, totals }) => {
        const items = quote.items.filter((item) => item.accountId === account.id && item.refusal === null);
        const pays = payBy[account.id] ?? account.paymentMethods.map((method) => method.label).join(', then ');
        return (
          <Section key={account.id}>
            <strong>
              {account.registrar && account.registrar !== account.label
                ? `${account.label} (${account.registrar})`
                : account.label}
            </strong>
            {quote.action === 'restore' ? (
              <Steps>
                <li>
                  Log in and look for deleted names, or ask the registrar, to restore{' '}
                  <span className="name">{items.map((item) => item.unicode).join(', ')}</span>.
                </li>
                <li>
                  It should come to {amountsWords(totals)}
                  {pays && `, paid from ${pays}`}. If it asks for much more, stop and look why.
                </li>
                <li>Some registrars want the restore report from you: say truthfully why the name was not renewed.</li>
                <li>Look at the new end of the term there, then write down here what was charged.</li>
              </Steps>
            ) : (
              <Steps>
                <li>
                  Log in and choose{' '}
                  {items.length === 1 ? (
                    <span className="name">{items[0]?.unicode}</span>
                  ) : (
                    `these ${namesWords(items.length)}`
                  )}{' '}
                  for renewal
                  {items.length > 1 && (
                    <>
                      : <span className="name">{items.map((item) => `${item.unicode} ${item.years}y`).join(', ')}</span>
                    </>
                  )}
                  .
                </li>
                <li>
                  {items.length === 1
                    ? `Take ${items[0]?.years === 1 ? 'one year' : `${items[0]?.years} years`}: the term should then end on ${items[0]?.newEnd ? termEndWords(items[0].newEnd, style) : ''}.`
                    : 'Take the term shown above for each.'}{' '}
                  Leave out every extra.
                </li>
                {quote.promotion?.code && <li>Enter the code {quote.promotion.code}.</li>}
                <li>
                  It should come to {amountsWords(totals)}
                  {quote.promotion &&
                    (quote.promotion.percent === null
                      ? ', less what the code takes off'
                      : `, ${numberText(quote.promotion.percent)} % taken off already`)}
                  {pays && `, paid from ${pays}`}. If it asks for much more, stop and look why.
                </li>
                <li>Note what was charged and its reference, then write them down here.</li>
              </Steps>
            )}
          </Section>
        );
      })}
    </Section>
  );
}
