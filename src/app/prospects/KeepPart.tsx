'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Forecast } from '@/core/prospects';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { report } from '@/ui/overlay/Toasts';
import { Sentence } from '@/ui/text/Sentence';
import { Section } from '@/ui/text/Sheet';
import { useBusy } from '../acts/useBusy';
import { keepForecastAction } from './actions';
import { useProspects } from './ProspectsContext';

/** Keeping this forecast, to be held against what happens. */
export function KeepPart({ forecast }: { forecast: Forecast }) {
  const { assumptions, years, seed } = useProspects();
  const router = useRouter();
  const [label, setLabel] = useState('');
  const [isBusy, during] = useBusy();
  if (forecast.fans.length === 0) return null;
  const keep = async () => {
    const answer = await during(keepForecastAction({ label, assumptions, years, seed, paths: forecast.paths }));
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else router.push(`/prospects/kept/${answer}`);
  };
  return (
    <Section aria-label="Keep this forecast">
      <h2>Keep it, and see what comes true</h2>
      <Sentence>
        Keep this outlook as
        <Field
          data-wide="long"
          label="Name of the forecast"
          hideLabel
          placeholder="a name"
          value={label}
          onChange={setLabel}
        />
        <Button isDisabled={label.trim() === '' || isBusy} onPress={() => void keep()}>
          Keep the forecast
        </Button>
      </Sentence>
    </Section>
  );
}
