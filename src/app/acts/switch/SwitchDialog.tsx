'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { isChargedAtOnce } from '@/core/funding';
import { type LedgerAccount, SWITCHES, type Switch } from '@/core/ledger';
import { sumByCurrency } from '@/core/money';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { amountsWords, dayWords, namesWords, switchHoursWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { NamedList } from '../NamedList';
import { useAct } from '../useAct';
import { confirmSwitchAction, requestSwitchAction } from './actions';
import { Stalled } from './Stalled';

interface SwitchDialogProps {
  readonly what: Switch;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  /** Every name it is about; `rows` are the first of them. */
  readonly nameIds: readonly number[];
  readonly rows: readonly RowView[];
}

const Steps = styled.ol`
  list-style: decimal;
  padding-left: 20px;
  display: flex;
  flex-direction: column;
  gap: 4px;
`;

export const SWITCH_WORDS: Readonly<Record<Switch, string>> = {
  'auto-renew': 'Auto-renew',
  lock: 'Transfer lock',
  privacy: 'Privacy',
};

function chargeable({ termEnd, marks }: RowView) {
  return { termEnd: termEnd as NonNullable<RowView['termEnd']>, chargeableUntil: marks?.deletion as Instant };
}

/** What is charged for a year of each, as far as it is known. */
function chargeWords(rows: readonly RowView[]): string {
  const known = rows.flatMap(({ costs, phase }) => (phase === 'late' ? costs.lateRenewal : costs.renewal) ?? []);
  const unknown = rows.length - known.length;
  const sum = known.length > 0 ? `${amountsWords(sumByCurrency(known))} for a year` : '';
  const rest =
    unknown === 0 ? '' : unknown === rows.length ? 'at a price not known' : `${unknown} at a price not known`;
  return [sum, rest].filter(Boolean).join(', ');
}

/** Switching auto-renew, lock or privacy: the program does it where it has a link; else what to do there, and what was seen. */
export function SwitchDialog({ what, isOpen, onClose, nameIds, rows }: SwitchDialogProps) {
  return (
    <Dialog
      title={`${SWITCH_WORDS[what]} of ${rows.length === 1 ? rows[0]?.name.unicode : namesWords(nameIds.length)}`}
      isOpen={isOpen && rows.length > 0}
      onClose={onClose}
    >
      <SwitchForm key={what} what={what} nameIds={nameIds} rows={rows} onClose={onClose} />
    </Dialog>
  );
}

function SwitchForm({ what, nameIds, rows, onClose }: Omit<SwitchDialogProps, 'isOpen'>) {
  const { meta, today } = useLedger();
  const first = rows[0];
  const standing = first ? standingOf(what, first) : null;
  const [to, setTo] = useState<'on' | 'off'>(standing?.requested ?? (standing?.setting === 'on' ? 'off' : 'on'));
  const [evidence, setEvidence] = useState('');
  const { act, isBusy, refused } = useAct();
  const accounts = [...new Set(rows.map((row) => row.name.accountId))].flatMap(
    (id) => meta?.rules.accounts.find((account) => account.id === id) ?? [],
  );

  // Said before it is switched.
  const atOnce = chargedAtOnce(rows, accounts, today);
  const linked = accounts.filter((account) => account.linked);
  const byHand = accounts.filter((account) => !account.linked);

  const run = async (work: () => ReturnType<typeof requestSwitchAction>) => {
    if (await act(work)) onClose();
  };

  return (
    <Form
      aria-label={SWITCH_WORDS[what]}
      refused={refused}
      onSubmit={() =>
        run(() =>
          linked.length > 0
            ? requestSwitchAction({ nameIds, what, to })
            : confirmSwitchAction({ nameIds, what, setting: to, evidence: evidence.trim() }),
        )
      }
    >
      {nameIds.length > 1 && <NamedList names={rows.map(({ name }) => name.unicode)} count={nameIds.length} />}
      {first && standing && rows.length === 1 && <StandingLine what={what} row={first} standing={standing} />}
      {what === 'auto-renew' && first?.setting === 'stalled' && <Stalled row={first} />}
      <Choice
        label="Switch it"
        value={to}
        onChange={setTo}
        options={[
          { value: 'on', text: 'on' },
          { value: 'off', text: 'off' },
        ]}
      />
      {what === 'auto-renew' && to === 'on' && atOnce.length > 0 && (
        <ChargedAtOnce rows={atOnce} lookedAt={nameIds.length > rows.length ? rows.length : null} />
      )}
      {linked.length > 0 && (
        <p>
          {linked.map((account) => account.label).join(', ')}: the program switches it there itself, for{' '}
          {namesWords(rows.filter((row) => linked.some((account) => account.id === row.name.accountId)).length)}. It
          stays “requested” until the registrar has answered.
        </p>
      )}
      {byHand.length > 0 && (
        <>
          <StepsByHand what={what} to={to} accounts={byHand} rows={rows} />
          <Field
            name="evidence"
            label="What you saw (evidence)"
            value={evidence}
            onChange={setEvidence}
            placeholder="list of names at the registrar, 10:40"
          />
        </>
      )}
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          {linked.length > 0 ? `Switch it ${to}` : `It is ${to} now: confirm`}
        </Button>
        {linked.length === 0 && (
          <Button isDisabled={isBusy} onPress={() => void run(() => requestSwitchAction({ nameIds, what, to }))}>
            Requested, confirm later
          </Button>
        )}
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Form>
  );
}

/** The names that the registrar charges for the moment auto-renew is on. */
function chargedAtOnce(rows: readonly RowView[], accounts: readonly LedgerAccount[], today: Instant): RowView[] {
  return rows.filter((row) => {
    const account = accounts.find(({ id }) => id === row.name.accountId);
    const isOn = row.setting === 'on' || row.termEnd === null || row.marks === null;
    return account && !isOn && isChargedAtOnce(account, chargeable(row), today);
  });
}

interface StandingLineProps {
  readonly what: Switch;
  readonly row: RowView;
  readonly standing: ReturnType<typeof standingOf>;
}

/** How the ledger has it, on which evidence, and what is asked for already. */
function StandingLine({ what, row, standing }: StandingLineProps) {
  const { style } = useLedger();
  return (
    <p className="soft">
      The ledger has it as {standing.setting}
      {what === 'auto-renew' && `, ${row.name.standing}`}
      {what === 'auto-renew' && row.name.settingSince ? ` since ${dayWords(row.name.settingSince, style)}` : ''}.
      {standing.requested ? ` Requested: ${standing.requested}, not confirmed yet.` : ''}
    </p>
  );
}

/** What the registrar takes the moment auto-renew is on. `lookedAt`: so many of the names were looked at. */
function ChargedAtOnce({ rows, lookedAt }: { rows: readonly RowView[]; lookedAt: number | null }) {
  return (
    <p className="caution" role="alert">
      {rows.length === 1 ? `${rows[0]?.name.unicode} is` : `${namesWords(rows.length)} are`} so near the end that the
      registrar charges at once, {chargeWords(rows)}.{lookedAt !== null && ` Looked at: the first ${lookedAt}.`}
    </p>
  );
}

interface StepsByHandProps {
  readonly what: Switch;
  readonly to: 'on' | 'off';
  /** Those without a link. */
  readonly accounts: readonly LedgerAccount[];
  readonly rows: readonly RowView[];
}

/** What to do at each registrar without a link, and how long that may take to show. */
function StepsByHand({ what, to, accounts, rows }: StepsByHandProps) {
  return (
    <Steps>
      {accounts.map((account) => (
        <li key={account.id}>
          Log in to {account.registrar || account.label} and switch {SWITCH_WORDS[what].toLowerCase()} {to} for{' '}
          {namesWords(rows.filter((row) => row.name.accountId === account.id).length)}.
          {what === 'auto-renew' &&
            to === 'on' &&
            ` It charges ${account.leadDays === 0 ? 'on the day the term ends' : `${account.leadDays} days before the term ends`}.`}
        </li>
      ))}
      <li>
        Look at the list there again, then confirm what it shows. A registrar can take its own time:{' '}
        {switchHoursWords(accounts)}.
      </li>
    </Steps>
  );
}

/** How a switch stands for a name, and what was asked for. */
function standingOf(what: Switch, { name, setting }: RowView): { setting: string; requested: 'on' | 'off' | null } {
  const words = (value: boolean | null) => (value === null ? 'unknown' : value ? 'on' : 'off');
  switch (what) {
    case 'auto-renew':
      return { setting, requested: name.requested };
    case 'lock':
      return { setting: words(name.lock), requested: name.requestedLock };
    case 'privacy':
      return { setting: words(name.privacy), requested: name.requestedPrivacy };
  }
}

/** What a name's registrar has been asked to switch and has not confirmed. */
export function switchesRequested(row: RowView): { what: Switch; setting: string; to: 'on' | 'off' }[] {
  return SWITCHES.flatMap((what) => {
    const { setting, requested } = standingOf(what, row);
    return requested === null ? [] : [{ what, setting, to: requested }];
  });
}

/** True for a dialog that switches something. */
export function isSwitch(dialog: string | null): dialog is Switch {
  return SWITCHES.some((what) => what === dialog);
}
