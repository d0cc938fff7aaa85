'use client';
import { useRouter } from 'next/navigation';
import styled from 'styled-components';
import type { Switch } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Menu } from '@/ui/overlay/Menu';
import { formatAmount } from '@/ui/text/figures';
import { restoreWords } from '@/ui/text/words';
import { DropDialog } from '../../acts/drop/DropDialog';
import { EditDialog } from '../../acts/edit/EditDialog';
import { useRenew } from '../../acts/renew/useRenew';
import { ServersDialog } from '../../acts/servers/ServersDialog';
import { isSwitch, SwitchDialog } from '../../acts/switch/SwitchDialog';
import { namePage } from '../../frame/pages';
import type { NameView, RowView } from '../../frame/views';

const Neighbours = styled.div`
  display: flex;
  gap: 14px;
`;

/** What may be open over a name's page. */
export type NameDialog = 'edit' | 'drop' | 'servers' | Switch;

interface NameActsProps {
  readonly view: NameView;
  /** While looking ahead nothing can be done. */
  readonly isAhead: boolean;
  readonly onOpen: (dialog: NameDialog) => void;
}

/** What can be done with a name, its main act first, and the way to its neighbours. */
export function NameActs({ view, isAhead, onOpen }: NameActsProps) {
  const router = useRouter();
  const { row } = view;
  return (
    <Actions>
      {(view.before || view.after) && (
        <Neighbours>
          {view.before && <Link href={namePage(view.before)}>← before</Link>}
          {view.after && <Link href={namePage(view.after)}>next →</Link>}
        </Neighbours>
      )}
      <RenewButton row={row} isAhead={isAhead} />
      <Button isDisabled={isAhead} onPress={() => onOpen('auto-renew')}>
        Auto-renew…
      </Button>
      <Button isDisabled={isAhead} onPress={() => onOpen('edit')}>
        Edit…
      </Button>
      <Menu
        trigger={<Button isDisabled={isAhead}>More</Button>}
        label={`More to do with ${row.name.unicode}`}
        choices={[
          { id: 'sell', text: 'Sell, or see its offers' },
          { id: 'lock', text: 'Transfer lock…' },
          { id: 'privacy', text: 'Privacy…' },
          { id: 'servers', text: 'Name servers…' },
          { id: 'drop', text: 'Drop…' },
        ]}
        onChoose={(id) =>
          id === 'sell' ? router.push(`/selling/names/${encodeURIComponent(row.name.ascii)}`) : onOpen(id as NameDialog)
        }
      />
    </Actions>
  );
}

/** The one main act: renewed, late too, or restored. */
function RenewButton({ row, isAhead }: { row: RowView; isAhead: boolean }) {
  const plan = useRenew();
  const price = row.deadline?.before ?? row.costs.renewal;
  const renewable = row.phase === 'term' || row.phase === 'refundable' || row.phase === 'late';
  if (row.phase === 'redemption')
    return (
      <Button
        data-kind="primary"
        isDisabled={isAhead}
        onPress={() => void plan([{ nameId: row.name.id, years: 1 }], 'restore')}
      >
        Restore{row.costs.restore ? ` for ${restoreWords(row.costs)}…` : '…'}
      </Button>
    );
  return (
    <Button
      data-kind="primary"
      isDisabled={isAhead || !renewable}
      onPress={() => void plan([{ nameId: row.name.id, years: row.policy.terms.renew.least }])}
    >
      {row.phase === 'late' ? 'Renew late' : 'Renew'}
      {renewable && price ? ` for ${formatAmount(price)}…` : '…'}
    </Button>
  );
}

interface NameDialogsProps {
  readonly row: RowView;
  readonly tags: readonly string[];
  readonly open: NameDialog | null;
  readonly onClose: () => void;
}

/** The dialogs of one name. */
export function NameDialogs({ row, tags, open, onClose }: NameDialogsProps) {
  return (
    <>
      <EditDialog isOpen={open === 'edit'} onClose={onClose} nameIds={[row.name.id]} rows={[row]} tags={tags} />
      <SwitchDialog
        what={isSwitch(open) ? open : 'auto-renew'}
        isOpen={isSwitch(open)}
        onClose={onClose}
        nameIds={[row.name.id]}
        rows={[row]}
      />
      <ServersDialog isOpen={open === 'servers'} onClose={onClose} nameIds={[row.name.id]} rows={[row]} />
      <DropDialog isOpen={open === 'drop'} onClose={onClose} rows={[row]} />
    </>
  );
}
