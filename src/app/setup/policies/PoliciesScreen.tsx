'use client';
import { useState } from 'react';
import type { Policy, RegistryFee } from '@/core/lifecycle';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { PolicySentence } from '@/ui/text/RuleSentences';
import { Page, Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { useTitle } from '../../frame/PageTitle';
import { Fees } from './FeesPart';
import { PolicyForm } from './PolicyForm';

/** The lifecycle rules of every ending, with where each comes from, and the yearly registry fee. */
export function PoliciesScreen({ policies, fees }: { policies: readonly Policy[]; fees: readonly RegistryFee[] }) {
  useTitle('Policies', 'the periods and terms of each ending');
  const [editing, setEditing] = useState<Policy | 'new' | null>(null);
  const generic = policies.find((policy) => policy.ending === '*') ?? null;
  return (
    <Page>
      <Wide>
        <Ruled data-list>
          <thead>
            <tr>
              <th>Ending</th>
              <th>Its names are</th>
              <th>Fee</th>
              <th>Source</th>
            </tr>
          </thead>
          <tbody>
            {policies.map((policy) => (
              <tr key={policy.ending}>
                <td>
                  <Button data-kind="plain" onPress={() => setEditing(policy)}>
                    {policy.ending === '*' ? 'all other endings' : `.${policy.ending}`}
                  </Button>
                </td>
                <td className="sentence">
                  <PolicySentence policy={policy} />
                </td>
                <td>{policy.yearlyFee ? 'fee added' : 'no fee'}</td>
                <td className="sentence">
                  {policy.source}, {formatDay(policy.sourceDate)}
                  {!policy.verified && <span className="caution"> unverified</span>}
                  {policy.sourceNote && <div className="soft">{policy.sourceNote}</div>}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      <Actions>
        <Button onPress={() => setEditing('new')}>Add an ending</Button>
      </Actions>
      <Fees fees={fees} />
      <Dialog
        title={
          editing === 'new'
            ? 'A policy of its own'
            : editing
              ? `Policy of ${editing.ending === '*' ? 'all other endings' : `.${editing.ending}`}`
              : ''
        }
        isOpen={editing !== null}
        onClose={() => setEditing(null)}
      >
        {editing && generic && (
          <PolicyForm
            policy={
              editing === 'new'
                ? { ...generic, ending: '', verified: false, source: 'memory', sourceNote: '' }
                : editing
            }
            onSaved={() => setEditing(null)}
          />
        )}
      </Dialog>
    </Page>
  );
}
