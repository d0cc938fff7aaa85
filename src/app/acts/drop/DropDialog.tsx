'use client';
import { useEffect, useState } from 'react';
import { renewableUntil } from '@/core/lifecycle';
import { sumByCurrency } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import {
  amountsWords,
  type DayStyle,
  dayWords,
  namesWords,
  restoreWords,
  switchHoursWords,
  termEndWords,
  untilWords,
} from '@/ui/text/words';
import type { Hanging } from '@/usecases/rescue/drop';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { useAct } from '../useAct';
import { aboutDroppingAction, dropAction, seenZoneAction } from './actions';

interface DropDialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly rows: readonly RowView[];
}

/** Dropping names: what hangs on each, the last day to change one's mind at each price, a reason, one confirmation. */
export function DropDialog({ isOpen, onClose, rows }: DropDialogProps) {
  return (
    <Dialog
      title={`Drop ${rows.length === 1 ? rows[0]?.name.unicode : namesWords(rows.length)}`}
      isOpen={isOpen && rows.length > 0}
      onClose={onClose}
    >
      <DropForm rows={rows} onClose={onClose} />
    </Dialog>
  );
}

const OTHER = 'another reason';
const CHECKLIST = ['Mail is read elsewhere', 'The site is moved or closed', 'The zone is copied'] as const;

function DropForm({ rows, onClose }: Omit<DropDialogProps, 'isOpen'>) {
  const { meta, style, today } = useLedger();
  const [about, setAbout] = useState<{ hanging: readonly Hanging[]; reasons: readonly string[] } | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [other, setOther] = useState('');
  const [zone, setZone] = useState('');
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const { act, isBusy, refused } = useAct();
  const ids = rows.map((row) => row.name.id).join(' ');
  useEffect(() => {
    void aboutDroppingAction(ids.split(' ').map(Number)).then(setAbout);
  }, [ids]);
  if (about === null || meta === null) return <p className="soft">Looking what they are in use for…</p>;
  const { hanging, reasons } = about;
  const saving = sumByCurrency(rows.flatMap((row) => row.costs.perYear ?? []));
  const [only] = rows.length === 1 ? rows : [];
  const accountsOf = (some: readonly RowView[]) =>
    meta.rules.accounts.filter(({ id }) => some.some(({ name }) => name.accountId === id));
  const isLinked = (row: RowView) => meta.rules.accounts.find((one) => one.id === row.name.accountId)?.linked === true;
  const byHand = rows.filter((row) => row.setting !== 'off' && !isLinked(row));
  const reason = chosen === OTHER ? other.trim() : (chosen ?? '');

  const drop = async () => {
    const request = {
      nameIds: rows.map((row) => row.name.id),
      reason,
      ...(zone.trim() === '' ? {} : { zone }),
      checked: [...checked],
    };
    if (await act(() => dropAction(request))) onClose();
  };

  return (
    <Form aria-label="Drop" refused={refused} onSubmit={drop}>
      <InUseTable rows={rows} hanging={hanging} />
      {only && <p>{changeOfMindWords(only, today, style)}</p>}
      <p className="soft">
        Saves {amountsWords(saving)} a year.{' '}
        {byHand.length > 0
          ? `Switch auto-renew off yourself for ${namesWords(byHand.length)} without a link; it stays requested until you confirm it.`
          : `Auto-renew is switched off at the registrar, and stays requested until it has confirmed: ${switchHoursWords(accountsOf(rows))}.`}
      </p>
      <Choice
        name={chosen === OTHER ? 'why' : 'reason'}
        label="Why"
        value={chosen}
        onChange={setChosen}
        placeholder="choose a reason"
        options={[...reasons, OTHER].map((text) => ({ value: text, text }))}
      />
      {chosen === OTHER && <Field name="reason" label="The reason" value={other} onChange={setOther} />}
      <Actions>
        {CHECKLIST.map((text) => (
          <Check
            key={text}
            isSelected={checked.has(text)}
            onChange={(on) => setChecked(new Set(on ? [...checked, text] : [...checked].filter((one) => one !== text)))}
          >
            {text}
          </Check>
        ))}
      </Actions>
      {only && <ZoneField ascii={only.name.ascii} zone={zone} onZone={setZone} />}
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Drop {only ? only.name.unicode : namesWords(rows.length)}
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Form>
  );
}

/** What hangs on each name, and until when it is paid. */
function InUseTable({ rows, hanging }: { rows: readonly RowView[]; hanging: readonly Hanging[] }) {
  const { style } = useLedger();
  const hangs = new Map(hanging.map((one) => [one.nameId, one]));
  return (
    <Wide>
      <Ruled aria-label="What they are in use for">
        <thead>
          <tr>
            <th>Name</th>
            <th>What it is in use for</th>
            <th>Paid until</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name.id}>
              <td className="name">{row.name.unicode}</td>
              <td>{hangingWords(row, hangs.get(row.name.id)).join('; ') || 'nothing that is known here'}</td>
              <td>{row.termEnd ? termEndWords(row.termEnd, style) : 'not known'}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}

interface ZoneFieldProps {
  readonly ascii: string;
  readonly zone: string;
  readonly onZone: (zone: string) => void;
}

/** A copy of the zone that is kept with the name: read as it is seen, or pasted. */
function ZoneField({ ascii, zone, onZone }: ZoneFieldProps) {
  const read = async () => {
    const answer = await seenZoneAction(ascii);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else onZone(answer);
  };

  return (
    <>
      <Actions>
        <Button onPress={() => void read()}>Read its zone as it is seen</Button>
      </Actions>
      <Field
        label="Its zone, to keep a copy"
        value={zone}
        onChange={onZone}
        rows={3}
        mono
        placeholder="paste the zone file here"
      />
    </>
  );
}

/** What the program knows to hang on a name, in a few words each. */
function hangingWords(row: RowView, known: Hanging | undefined): string[] {
  const { name } = row;
  return [
    name.neverLost ? 'never to be lost' : '',
    name.purpose === 'in use' ? 'in use' : '',
    known && known.nameServers.length > 0 ? `name servers ${known.nameServers.join(', ')}` : '',
    known?.live && known.live.site.length > 0 ? `a site at ${known.live.site.join(', ')}` : '',
    known?.live && known.live.mail.length > 0 ? `mail at ${known.live.mail.join(', ')}` : '',
    name.asking ? `listed for ${formatAmount(name.asking, true)}` : '',
    row.phase === 'pending transfer' ? 'a transfer under way' : '',
    known && known.runs > 0 ? 'a run that is not settled' : '',
  ].filter((words) => words !== '');
}

/** Until when one may still keep a name, at each price that is left. */
function changeOfMindWords({ marks, coming, costs }: RowView, today: Instant, style: DayStyle): string {
  if (marks === null) return '';
  const free = coming?.at ?? marks.termEnd;
  const chances = [
    free > today ? `for nothing until ${dayWords(free, style)}` : '',
    costs.lateRenewal && renewableUntil(marks, today) > Math.max(free, today)
      ? `for ${formatAmount(costs.lateRenewal)} until ${untilWords(renewableUntil(marks, today), style)}`
      : '',
    costs.restore && marks.redemptionEnd > Math.max(marks.deletion, today)
      ? `for ${restoreWords(costs)} until ${untilWords(marks.redemptionEnd, style)}`
      : '',
  ].filter((words) => words !== '');
  return chances.length === 0
    ? 'Nothing can keep it any more.'
    : `You can change your mind ${chances.join(', ')}. Then it is lost.`;
}
