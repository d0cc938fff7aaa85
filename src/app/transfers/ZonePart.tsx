'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import type { TransferView } from '@/usecases/moving/underWay';
import type { ZonesOfTransfer } from '@/usecases/moving/zones';
import { useSave } from '../acts/useSave';
import { bringZoneAction, zonesOfTransferAction } from './actions';

const Lines = styled.pre`margin: 0; white-space: pre-wrap; overflow-wrap: anywhere; font-size: 0.86rem;`;

/** The zone of a name before its transfer and what differs after it; read when it is opened. */
export function ZonePart({ transfer: { id, ascii, unicode, zoneNote, turn } }: { transfer: TransferView }) {
  const [zones, setZones] = useState<ZonesOfTransfer | null>(null);
  const read = async () => {
    const answer = await zonesOfTransferAction(id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setZones(answer);
  };
  return (
    <Disclosure summary="Zone" label={`Zone of ${unicode}`} onOpen={() => void read()}>
      {zoneNote && <p className="soft">{zoneNote}</p>}
      {zones && <ZoneLines zones={zones} ascii={ascii} />}
      {turn !== 'nobody' && <BringZone id={id} unicode={unicode} onBrought={() => void read()} />}
    </Disclosure>
  );
}

function ZoneLines({ zones: { before, lost, came, isCompared }, ascii }: { zones: ZonesOfTransfer; ascii: string }) {
  const line = ({ name, type, data }: ZonesOfTransfer['lost'][number]) => `${name} ${type} ${data}`;
  return (
    <>
      {isCompared && lost.length + came.length === 0 && <p>Compared after the transfer: nothing differs.</p>}
      {lost.length > 0 && (
        <>
          <p className="caution">Missing since the transfer:</p>
          <Lines>{lost.map(line).join('\n')}</Lines>
        </>
      )}
      {came.length > 0 && (
        <>
          <p>New since the transfer:</p>
          <Lines>{came.map(line).join('\n')}</Lines>
        </>
      )}
      {before !== null && (
        <p>
          <a href={`data:text/dns;charset=utf-8,${encodeURIComponent(before)}`} download={`${ascii}.zone`}>
            The zone before, as a file
          </a>
        </p>
      )}
    </>
  );
}

function BringZone({ id, unicode, onBrought }: { id: number; unicode: string; onBrought: () => void }) {
  const { save, refused, isBusy } = useSave();
  const bring = async (form: FormData) => {
    const records = await save(
      bringZoneAction(id, textOf(form, 'zone')),
      (count) => `${count === 1 ? 'One record' : `${count} records`} taken in.`,
    );
    if (records !== null) onBrought();
  };
  return (
    <Form aria-label={`Zone file of ${unicode}`} refused={refused} onSubmit={bring}>
      <Field name="zone" label={`Zone file of the old account, for ${unicode}`} rows={4} />
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Take it in
        </Button>
      </Actions>
    </Form>
  );
}
