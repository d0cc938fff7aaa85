'use client';
import Link from 'next/link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords, PHASE_WORDS, termEndWords } from '@/ui/text/words';
import type { NameDetail } from '@/usecases/names/detail';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';

/** What the ledger believes of a name, and by which evidence; and what it is listed for. */
export function KnownFacts({ row, detail }: { row: RowView; detail: NameDetail }) {
  const { meta, style } = useLedger();
  const { name, phase, termEnd, setting, costs, policy } = row;
  const account = meta?.rules.accounts.find((a) => a.id === name.accountId);
  const yesNo = (value: boolean | null) => (value === null ? 'not known' : value ? 'on' : 'off');
  const facts: [string, string, string?][] = [
    ['phase', phase ? PHASE_WORDS[phase].word : 'not known', phase ? (PHASE_WORDS[phase].trade ?? '') : ''],
    [
      'term ends',
      termEnd ? termEndWords(termEnd, style) : 'not known',
      termEnd?.precision === 'day'
        ? 'only the date is known'
        : termEnd
          ? `${new Date(termEnd.at).toISOString().slice(11, 16)} UTC`
          : '',
    ],
    [
      'auto-renew',
      setting === 'unknown' ? 'not known' : setting,
      `${name.standing}${name.settingSince ? ` since ${dayWords(name.settingSince, style)}` : ''}${detail.extras.settingEvidence ? `: ${detail.extras.settingEvidence}` : ''}${name.requested ? `; requested: ${name.requested}` : ''}`,
    ],
    ['account', account?.label ?? ''],
    ['lock', yesNo(name.lock)],
    ['privacy', yesNo(name.privacy)],
    ['name servers', detail.extras.nameServers.join(', ') || 'not known'],
    [
      'last transferred',
      name.transferred ? termEndWords(name.transferred, style) : 'not known',
      detail.extras.transferredEvidence ?? '',
    ],
    [
      'holder changed',
      name.holderChanged ? termEndWords(name.holderChanged, style) : 'not known',
      [detail.extras.holderChangedEvidence, name.holderLockWaived && 'lock after it waived'].filter(Boolean).join(', '),
    ],
    ['purpose', `${name.purpose}${name.neverLost ? ', never to be lost' : ''}`],
    ['asking', name.asking ? formatAmount(name.asking, true) : 'none'],
    ['tags', name.tags.join(', ') || 'none'],
    [
      'rule',
      policy.ending === '*' ? 'generic endings' : `.${policy.ending}`,
      `${policy.source}${policy.verified ? '' : ', unverified'}`,
    ],
    [
      'a year costs',
      costs.perYear ? formatAmount(costs.perYear) : 'no price known',
      costs.restoreRuleOfThumb && costs.restore ? `restore ${formatAmount(costs.restore)} by rule of thumb` : '',
    ],
  ];
  return (
    <Section aria-label="What the ledger knows">
      <h2>What the ledger knows</h2>
      <Ruled>
        <tbody>
          {facts.map(([what, value, evidence]) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>
                {value} {evidence && <span className="soft">{evidence}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {costs.perYear === null && account && (
        <p>
          No price is known for .{name.ending} at {account.label}.{' '}
          <Link href={`/setup/accounts/${account.id}`}>Set one there</Link>
        </p>
      )}
      {name.notes && <p className="soft">{name.notes}</p>}
    </Section>
  );
}
