'use client';
import { useState } from 'react';
import { type Day, formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import type { Settings } from '@/usecases/settings';
import { useSave } from '../../acts/useSave';
import { fetchBootstrapAction, saveRecordServersAction } from '../actions';

const lines = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** Where registration records are asked for: RDAP by a bootstrap file, WHOIS by ending, and a name server. */
export function RecordServersForm({ records }: { records: Settings['records'] }) {
  const { save, refused, isBusy } = useSave();
  const [address, setAddress] = useState('');
  const published = (records.bootstrap as { publication?: string } | null)?.publication;

  const saveServers = (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const asked = saveRecordServersAction({
      bootstrap: text('bootstrap'),
      whois: lines(text('whois')),
      dns: text('dns').trim(),
      allowedHosts: lines(text('allowedHosts')),
    });
    void save(asked, 'Saved.');
  };
  const fetchFile = () =>
    save(fetchBootstrapAction(address.trim()), (publication) => `The bootstrap file of ${publication} is taken.`);

  return (
    <Form aria-label="Registration records" refused={refused} onSubmit={saveServers}>
      <Section>
        <h2>Registration records</h2>
        <Fields>
          <Field
            name="bootstrap"
            label="RDAP bootstrap file (RFC 9224)"
            rows={3}
            mono
            defaultValue=""
            hint={
              published
                ? `the one of ${formatDay(published.slice(0, 10) as Day)} is in use; paste another to replace it`
                : 'none yet'
            }
          />
          <Field
            name="whois"
            label="WHOIS servers"
            rows={3}
            mono
            defaultValue={Object.entries(records.whois)
              .map(([ending, server]) => `${ending} ${server}`)
              .join('\n')}
            hint="a line for each ending without RDAP"
          />
          <Field
            name="allowedHosts"
            label="Hosts that are not public"
            rows={3}
            mono
            defaultValue={records.allowedHosts.join('\n')}
            hint="only these are asked off the public addresses"
          />
          <Field name="dns" label="Name server to ask" defaultValue={records.dns ?? ''} />
          <Field name="address" label="Fetch the bootstrap file from" value={address} onChange={setAddress} />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Save the servers
          </Button>
          <Button isDisabled={address.trim() === ''} onPress={() => void fetchFile()}>
            Fetch it now
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
