'use client';
import type { Forecast } from '@/core/prospects';
import { AmountField } from '@/ui/controls/AmountField';
import { Link } from '@/ui/controls/Link';
import { Sentence } from '@/ui/text/Sentence';
import { Notice } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { useLedger } from '../frame/LedgerProvider';
import { useProspects } from './ProspectsContext';

/** What nobody knows, what stands in for it, and where it can be said; and what is left out of the picture. */
export function LackingPart({ forecast: { lacking, currency, fans } }: { forecast: Forecast }) {
  const { meta } = useLedger();
  const { assumptions, assume, takenUp } = useProspects();
  const { unpricedCount, balances, currencies, noRate, noEnd, noSetting } = lacking;
  const labels = balances
    .map((id) => meta?.rules.accounts.find((account) => account.id === id)?.label ?? '')
    .join(', ');
  const standIn = (key: 'unknownPriceMinor' | 'unknownBalanceMinor', label: string) => (
    <AmountField
      key={takenUp}
      label={label}
      hideLabel
      placeholder="an amount"
      currency={currency}
      amount={assumptions[key] === null ? null : { minor: assumptions[key] as number, currency }}
      onChange={(text, read) => {
        if (read) assume({ [key]: read.minor });
        else if (text.trim() === '') assume({ [key]: null });
      }}
    />
  );
  const isOut = noRate + noEnd + noSetting > 0;
  return (
    <>
      {(unpricedCount > 0 || assumptions.unknownPriceMinor !== null) && (
        <Notice data-kind={fans.length === 0 && assumptions.unknownPriceMinor === null ? 'caution' : undefined}>
          <Sentence>
            {countOf(unpricedCount, 'name has', 'names have')} no known renewal price.{' '}
            <Link href="/unknown">Say it</Link> or take
            {standIn('unknownPriceMinor', `What stands in for an unknown price, ${currency}`)}
            {currency} for each charge.
          </Sentence>
        </Notice>
      )}
      {(balances.length > 0 || assumptions.unknownBalanceMinor !== null) && (
        <Notice data-kind={balances.length > 0 ? 'caution' : undefined}>
          <Sentence>
            {balances.length > 0 ? `The balance of ${labels} is not known. ` : 'Unknown balances are assumed. '}
            <Link href="/setup/accounts">Say it</Link> or take
            {standIn('unknownBalanceMinor', `What stands in for an unknown balance, ${currency}`)}
            {currency} for each.
          </Sentence>
        </Notice>
      )}
      {currencies.length > 0 && (
        <Notice data-kind="caution">
          What is paid in {currencies.join(', ')} cannot be told in {currency}: no rate is known.{' '}
          <Link href="/setup/marketplaces">Set one</Link>
        </Notice>
      )}
      {isOut && (
        <p className="soft">
          Left out, because it is not known:{' '}
          {[
            noEnd > 0 && `when ${noEnd === 1 ? 'the term of a name ends' : `the terms of ${noEnd} names end`}`,
            noSetting > 0 &&
              `whether ${noSetting === 1 ? 'a name renews itself' : `${noSetting} names renew themselves`}`,
            noRate > 0 && `a rate for ${noRate === 1 ? 'an asking price' : `${noRate} asking prices`}`,
          ]
            .filter(Boolean)
            .join('; ')}
          . <Link href="/unknown">Say it</Link>
        </p>
      )}
    </>
  );
}
