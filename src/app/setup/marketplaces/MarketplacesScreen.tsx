'use client';
import type { Rate } from '@/core/money';
import { type AnswerRule, netProceedsOf } from '@/core/selling';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { MarketplaceSentence } from '@/ui/text/RuleSentences';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import type { RatesSource } from '@/usecases/rates/rates';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { BringRates, DailyRates } from './BringRates';
import { RatesPart } from './RatesPart';
import { RulePart } from './RulePart';

const SAMPLE_MINOR = 100_000;

interface MarketplacesScreenProps {
  readonly marketplaces: readonly MarketplaceRow[];
  readonly rates: readonly Rate[];
  readonly source: RatesSource | null;
  readonly rule: AnswerRule | null;
}

/** Every marketplace with what it keeps; the rule for offers; and the rates between currencies. */
export function MarketplacesScreen({ marketplaces, rates, source, rule }: MarketplacesScreenProps) {
  useTitle('Marketplaces', 'where names are sold, and what each keeps');
  return (
    <Page>
      <Section>
        <Wide>
          <MarketplacesTable marketplaces={marketplaces} />
        </Wide>
        {marketplaces.length === 0 && (
          <p className="soft">No marketplace yet. Names can be sold by the office itself all the same.</p>
        )}
        <Actions>
          <ButtonLink href="/setup/marketplaces/new" data-kind="primary">
            New marketplace
          </ButtonLink>
        </Actions>
      </Section>
      <RulePart rule={rule} />
      <RatesPart rates={rates} />
      <Section aria-label="Rates from elsewhere">
        <BringRates />
        <DailyRates source={source} />
      </Section>
    </Page>
  );
}

/** Every marketplace with its fees, its rules, and whether its link works. */
function MarketplacesTable({ marketplaces }: { marketplaces: readonly MarketplaceRow[] }) {
  const { style } = useLedger();
  return (
    <Ruled data-list aria-label="Marketplaces">
      <thead>
        <tr>
          <th style={{ width: 140 }}>Marketplace</th>
          <th>How it sells</th>
          <th className="figure">Commission</th>
          <th className="figure">At least</th>
          <th className="figure">Proceeds of 1,000</th>
          <th>Link</th>
        </tr>
      </thead>
      <tbody>
        {marketplaces.map((marketplace) => (
          <tr key={marketplace.id}>
            <td>
              <Link href={`/setup/marketplaces/${marketplace.id}`}>{marketplace.label}</Link>
              {!marketplace.payoutSet && <div className="caution">payout not set</div>}
            </td>
            <td className="sentence">
              <MarketplaceSentence marketplace={marketplace} />
            </td>
            <td className="figure" data-said="commission">
              {marketplace.percent} %
              {marketplace.steps.map((step) => (
                <div key={step.fromMinor} className="soft">
                  {step.percent} % above{' '}
                  {formatAmount({ minor: step.fromMinor, currency: marketplace.feesCurrency }, true)}
                </div>
              ))}
            </td>
            <td className="figure" data-said="at least">
              {marketplace.floorMinor > 0 &&
                formatAmount({ minor: marketplace.floorMinor, currency: marketplace.feesCurrency }, true)}
            </td>
            <td className="figure" data-said="proceeds of 1,000">
              {formatAmount(
                {
                  minor: netProceedsOf(SAMPLE_MINOR, marketplace).proceedsMinor,
                  currency: marketplace.feesCurrency,
                },
                true,
              )}
            </td>
            <td data-said="link">
              {marketplace.linkUrl === null ? (
                <span className="soft">by hand</span>
              ) : marketplace.linkProblem ? (
                <span className="caution">{marketplace.linkProblem}</span>
              ) : marketplace.linkReadAt ? (
                `read ${dayWords(marketplace.linkReadAt, style)}`
              ) : (
                'set'
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Ruled>
  );
}
