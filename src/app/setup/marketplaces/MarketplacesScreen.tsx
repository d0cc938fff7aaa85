'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Rate, readPercent } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { type AnswerRule, netProceedsOf } from '@/core/selling';
import { formatDay } from '@/core/time';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount, numberText, typedNumber } from '@/ui/text/figures';
import { Fields, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { answerRuleAction, saveRateAction } from '../actions';

const SAMPLE_MINOR = 100_000;

/** Every marketplace with what it keeps; the rule for offers; and the rates between currencies. */
export function MarketplacesScreen({
  marketplaces,
  rates,
  rule,
}: {
  marketplaces: readonly MarketplaceRow[];
  rates: readonly Rate[];
  rule: AnswerRule | null;
}) {
  const { style } = useLedger();
  useTitle('Marketplaces', 'where names are sold, and what each keeps');
  return (
    <Page>
      <Section>
        <Wide>
          <Ruled aria-label="Marketplaces">
            <thead>
              <tr>
                <th>Marketplace</th>
                <th>Sells in</th>
                <th className="figure">Commission</th>
                <th className="figure">At least</th>
                <th>Auctions</th>
                <th>Review</th>
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
                  <td>{marketplace.currencies.join(', ') || 'any currency'}</td>
                  <td className="figure">
                    {marketplace.percent} %
                    {marketplace.steps.map((step) => (
                      <div key={step.fromMinor} className="soft">
                        {step.percent} % above{' '}
                        {formatAmount({ minor: step.fromMinor, currency: marketplace.feesCurrency }, true)}
                      </div>
                    ))}
                  </td>
                  <td className="figure">
                    {marketplace.floorMinor > 0 &&
                      formatAmount({ minor: marketplace.floorMinor, currency: marketplace.feesCurrency }, true)}
                  </td>
                  <td>{marketplace.auctionDays.length > 0 ? `${marketplace.auctionDays.join(', ')} days` : 'none'}</td>
                  <td>{marketplace.reviewHours === 0 ? 'none' : `up to ${marketplace.reviewHours} h`}</td>
                  <td className="figure">
                    {formatAmount(
                      {
                        minor: netProceedsOf(SAMPLE_MINOR, marketplace).proceedsMinor,
                        currency: marketplace.feesCurrency,
                      },
                      true,
                    )}
                  </td>
                  <td>
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
    </Page>
  );
}

function RulePart({ rule }: { rule: AnswerRule | null }) {
  const percent = (share: number | null | undefined) => (share == null ? '' : String(Math.round(share * 100)));
  const [isOn, setOn] = useState(rule !== null);
  const [acceptFrom, setAccept] = useState(percent(rule?.acceptFrom));
  const [counterWith, setCounter] = useState(percent(rule?.counterWith));
  const [days, setDays] = useState(String(rule?.counterDays ?? 7));
  const [refused, setRefused] = useState<Refusal | null>(null);
  const problem = (field: string) => (refused?.field === field ? refused.message : null);
  const save = async () => {
    const number = (text: string) => {
      const share = text.trim() === '' ? undefined : readPercent(text, 0, 1000);
      return isRefusal(share) ? Number.NaN : share;
    };
    const answer = await answerRuleAction({
      isOn,
      acceptFrom: number(acceptFrom),
      counterWith: number(counterWith),
      counterDays: Number(days),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (!isRefusal(answer)) report({ text: 'Saved.' });
  };
  return (
    <Section aria-label="Answers by rule">
      <h2>Answers by rule</h2>
      <p className="soft">
        Below the minimum an offer is declined at once, everywhere. Above it you answer, unless you set a rule.
      </p>
      <Check isSelected={isOn} onChange={setOn}>
        Answer offers by this rule
      </Check>
      {isOn && (
        <Fields>
          <Field
            label="Accept from, percent of asking"
            value={acceptFrom}
            onChange={setAccept}
            problem={problem('acceptFrom')}
            hint="empty: never"
          />
          <Field
            label="Counter with, percent of asking"
            value={counterWith}
            onChange={setCounter}
            problem={problem('counterWith')}
            hint="once in a thread; empty: never"
          />
          <Field label="A counter stands, days" value={days} onChange={setDays} problem={problem('counterDays')} />
        </Fields>
      )}
      <Actions>
        <Button onPress={() => void save()}>Save the rule</Button>
      </Actions>
    </Section>
  );
}

function RatesPart({ rates }: { rates: readonly Rate[] }) {
  const router = useRouter();
  const { homeCurrency } = useLedger();
  const [form, setForm] = useState({ from: '', currency: '', into: homeCurrency, factor: '' });
  const [refused, setRefused] = useState<Refusal | null>(null);
  const field = (key: keyof typeof form, label: string, hint?: string) => (
    <Field
      label={label}
      value={form[key]}
      onChange={(value) =>
        setForm({ ...form, [key]: key === 'factor' || key === 'from' ? value : value.toUpperCase() })
      }
      problem={refused?.field === key ? refused.message : null}
      {...(hint ? { hint } : {})}
    />
  );
  const save = async () => {
    const factor = typedNumber(form.factor);
    if (isRefusal(factor)) {
      setRefused({ ...factor, field: 'factor' });
      return;
    }
    const answer = await saveRateAction({ ...form, factor });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    report({ text: 'Saved.' });
    setForm({ ...form, factor: '' });
    router.refresh();
  };
  return (
    <Section aria-label="Rates between currencies">
      <h2>Rates between currencies</h2>
      <p className="soft">
        Costs and sales of different currencies are set against each other at the rate of their day.
      </p>
      {rates.length > 0 && (
        <Ruled aria-label="Rates">
          <tbody>
            {rates.map((rate) => (
              <tr key={`${rate.from} ${rate.currency} ${rate.into}`}>
                <td>from {formatDay(rate.from)}</td>
                <td className="figure">
                  1 {rate.currency} = {numberText(rate.factor)} {rate.into}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
      <Fields>
        {field('from', 'From day', 'like 2026-11-01')}
        {field('currency', 'One unit of')}
        {field('into', 'in')}
        {field('factor', 'is so many')}
      </Fields>
      <Actions>
        <Button onPress={() => void save()}>Save the rate</Button>
      </Actions>
    </Section>
  );
}
