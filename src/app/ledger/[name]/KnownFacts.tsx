'use client';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { PURPOSES } from '@/core/ledger';
import { dayOf, type TermEnd } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { type DayStyle, dayWords, PHASE_WORDS, SETTING_WORDS, termEndWords } from '@/ui/text/words';
import type { NameDetail } from '@/usecases/names/detail';
import { useDay, useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { type FactEdit, FactEditor } from './FactEditor';

/** One thing that the ledger believes: its value, what it rests on, and how it is edited where it stands. */
interface Fact {
  readonly what: string;
  readonly value: string;
  readonly evidence?: string;
  readonly edit?: FactEdit;
}

/** What the ledger believes of a name, each with its evidence, and edited where it is read. */
export function KnownFacts({ row, detail }: { row: RowView; detail: NameDetail }) {
  const { meta } = useLedger();
  const { daysAhead } = useDay();
  const [editing, setEditing] = useState<string | null>(null);
  const { name, costs } = row;
  const account = meta?.rules.accounts.find((a) => a.id === name.accountId);
  const facts = useFacts(row, detail);
  return (
    <Section aria-label="What the ledger knows">
      <h2>What the ledger knows</h2>
      <Ruled>
        <tbody>
          {facts.map(({ what, value, evidence, edit }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>
                {edit && editing === what ? (
                  <FactEditor nameId={name.id} what={what} edit={edit} onEnd={() => setEditing(null)} />
                ) : (
                  <>
                    {value} {evidence && <span className="soft">{evidence}</span>}
                  </>
                )}
              </td>
              <td className="figure">
                {edit && editing !== what && daysAhead === 0 && (
                  <Button data-kind="plain" aria-label={`Edit ${what}`} onPress={() => setEditing(what)}>
                    <Pencil size={13} aria-hidden />
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {costs.perYear === null && account && (
        <p>
          No price is known for .{name.ending} at {account.label}. <Link href="/unknown#prices">Say it</Link>
        </p>
      )}
      {name.notes && <p className="soft">{name.notes}</p>}
    </Section>
  );
}

const yesNo = (value: boolean | null) => (value === null ? 'not known' : value ? 'on' : 'off');
const onOff = (value: boolean | null) => (value === null ? '' : value ? 'on' : 'off');
const dayText = (end: TermEnd | null) => (end ? dayOf(end.at) : '');

/** The facts in their order: the term first, then what the registrar has switched, then what the office wants of the name. */
function useFacts(row: RowView, detail: NameDetail): readonly Fact[] {
  const { meta, style, homeCurrency } = useLedger();
  return [...registrarFacts(row, detail, meta?.rules.accounts ?? [], style), ...officeFacts(row, homeCurrency)];
}

const dayEdit = (
  field: 'expiresAt' | 'transferredAt' | 'holderChangedAt' | 'registeredAt',
  end: TermEnd | null,
): FactEdit => ({ kind: 'day', field, value: dayText(end) });

function registrarFacts(
  { name, phase, termEnd, setting }: RowView,
  { extras, visits }: NameDetail,
  accounts: readonly { readonly id: number; readonly label: string }[],
  style: DayStyle,
): readonly Fact[] {
  return [
    {
      what: 'phase',
      value: phase ? PHASE_WORDS[phase].word : 'not known',
      evidence: phase ? (PHASE_WORDS[phase].trade ?? '') : '',
    },
    {
      what: 'registered',
      value: name.registered ? termEndWords(name.registered, style) : 'not known',
      edit: dayEdit('registeredAt', name.registered),
    },
    {
      what: 'term ends',
      value: termEnd ? termEndWords(termEnd, style) : 'not known',
      evidence: termEnd
        ? termEnd.precision === 'day'
          ? 'only the date is known'
          : `${new Date(termEnd.at).toISOString().slice(11, 16)} UTC`
        : '',
      edit: dayEdit('expiresAt', name.termEnd),
    },
    {
      what: 'auto-renew',
      value: setting === 'unknown' ? 'not known' : SETTING_WORDS[setting],
      evidence: `${name.standing}${name.settingSince ? ` since ${dayWords(name.settingSince, style)}` : ''}${extras.settingEvidence ? `: ${extras.settingEvidence}` : ''}${name.requested ? `; requested: ${name.requested}` : ''}`,
      edit: { kind: 'switch', what: 'auto-renew', value: setting === 'on' || setting === 'off' ? setting : '' },
    },
    {
      what: 'account',
      value: accounts.find(({ id }) => id === name.accountId)?.label ?? '',
      edit: {
        kind: 'choice',
        field: 'accountId',
        value: String(name.accountId),
        options: accounts.map(({ id, label }) => ({ value: String(id), text: label })),
      },
    },
    { what: 'lock', value: yesNo(name.lock), edit: { kind: 'switch', what: 'lock', value: onOff(name.lock) } },
    {
      what: 'privacy',
      value: yesNo(name.privacy),
      edit: { kind: 'switch', what: 'privacy', value: onOff(name.privacy) },
    },
    ...(visits > 0
      ? [
          {
            what: 'window opened',
            value: visits === 1 ? 'once in 30 days' : `${visits.toLocaleString('en')} times in 30 days`,
          },
        ]
      : []),
    { what: 'name servers', value: extras.nameServers.join(', ') || 'not known' },
    {
      what: 'last transferred',
      value: name.transferred ? termEndWords(name.transferred, style) : 'not known',
      evidence: extras.transferredEvidence ?? '',
      edit: dayEdit('transferredAt', name.transferred),
    },
    {
      what: 'holder changed',
      value: name.holderChanged ? termEndWords(name.holderChanged, style) : 'not known',
      evidence: [extras.holderChangedEvidence, name.holderLockWaived && 'lock after it waived']
        .filter(Boolean)
        .join(', '),
      edit: dayEdit('holderChangedAt', name.holderChanged),
    },
  ];
}

function officeFacts({ name, costs, policy }: RowView, homeCurrency: string): readonly Fact[] {
  return [
    {
      what: 'purpose',
      value: `${name.purpose}${name.neverLost ? ', never to be lost' : ''}`,
      edit: {
        kind: 'choice',
        field: 'purpose',
        value: name.purpose,
        options: PURPOSES.map((value) => ({ value, text: value })),
      },
    },
    {
      what: 'asking',
      value: name.asking ? formatAmount(name.asking, true) : 'none',
      edit: { kind: 'amount', currency: name.asking?.currency ?? homeCurrency, minor: name.asking?.minor ?? null },
    },
    { what: 'tags', value: name.tags.join(', ') || 'none', edit: { kind: 'tags', value: name.tags } },
    {
      what: 'rule',
      value: policy.ending === '*' ? 'generic endings' : `.${policy.ending}`,
      evidence: `${policy.source}${policy.verified ? '' : ', unverified'}`,
    },
    {
      what: 'a year costs',
      value: costs.perYear ? formatAmount(costs.perYear) : 'no price known',
      evidence:
        costs.restoreRuleOfThumb && costs.restore ? `restore ${formatAmount(costs.restore)} by rule of thumb` : '',
    },
  ];
}
