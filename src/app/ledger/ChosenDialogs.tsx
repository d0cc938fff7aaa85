'use client';
import { memo } from 'react';
import type { Switch } from '@/core/ledger';
import { report } from '@/ui/overlay/Toasts';
import { useCheck } from '../acts/check/useCheck';
import { DropDialog } from '../acts/drop/DropDialog';
import { EditDialog } from '../acts/edit/EditDialog';
import { useList } from '../acts/list/useList';
import { useMove } from '../acts/move/useMove';
import { useRenew } from '../acts/renew/useRenew';
import { ServersDialog } from '../acts/servers/ServersDialog';
import { isSwitch, SwitchDialog } from '../acts/switch/SwitchDialog';
import type { ChosenAct } from './TotalsBar';
import type { useChosen } from './useChosen';

const StillEditDialog = memo(EditDialog);

const StillSwitchDialog = memo(SwitchDialog);

const StillDropDialog = memo(DropDialog);

const StillServersDialog = memo(ServersDialog);

export type Chosen = ReturnType<typeof useChosen>;

export type OpenDialog = 'edit' | 'drop' | 'servers' | Switch | null;

/** What is done with the chosen names: at once, or in the dialog that it opens. */
export function useChosenAct(chosen: Chosen, onOpen: (dialog: OpenDialog) => void): (what: ChosenAct) => void {
  const plan = useRenew();
  const check = useCheck();
  const list = useList();
  const move = useMove();
  const renew = async () => {
    if (chosen.count > chosen.rows.length) {
      report({ text: 'Renew up to 1,000 names at a time. Choose fewer.', problem: true });
      return;
    }
    await plan(chosen.rows.map((row) => ({ nameId: row.name.id, years: row.policy.terms.renew.least })));
  };

  return (what: ChosenAct) => {
    if (what === 'renew') void renew();
    else if (what === 'check') void check(chosen.rows);
    else if (what === 'sell') list(chosen.ids);
    else if (what === 'move') move(chosen.ids);
    else if (what === 'clear') chosen.clear();
    else onOpen(what);
  };
}

interface ChosenDialogsProps {
  readonly dialog: OpenDialog;
  readonly chosen: Chosen;
  readonly tags: readonly string[];
  readonly onClose: () => void;
}

/** The dialogs of what can be done with the chosen names. */
export function ChosenDialogs({ dialog, chosen, tags, onClose }: ChosenDialogsProps) {
  return (
    <>
      <StillEditDialog
        isOpen={dialog === 'edit'}
        onClose={onClose}
        nameIds={chosen.ids}
        rows={chosen.rows}
        tags={tags}
      />
      <StillSwitchDialog
        what={isSwitch(dialog) ? dialog : 'auto-renew'}
        isOpen={isSwitch(dialog)}
        onClose={onClose}
        nameIds={chosen.ids}
        rows={chosen.rows}
      />
      <StillServersDialog isOpen={dialog === 'servers'} onClose={onClose} nameIds={chosen.ids} rows={chosen.rows} />
      <StillDropDialog isOpen={dialog === 'drop'} onClose={onClose} rows={chosen.rows} />
    </>
  );
}
