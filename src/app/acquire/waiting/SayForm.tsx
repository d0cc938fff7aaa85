'use client';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import type { ApproachRow } from '@/usecases/acquiring/approaches';
import { useSave } from '../../acts/useSave';
import { sayApproachAction } from '../actions';

/** What was said, in one's own words: sent by mail now, or written down; or what the holder has answered. */
export function SayForm({ thread }: { thread: ApproachRow }) {
  const { save, refused, isBusy } = useSave();
  const [made, setMade] = useState(0);
  const [byMail, setByMail] = useState(thread.contact !== '');
  const { id, unicode, currency, contact } = thread;
  const [isOurs, setOurs] = useState(true);
  return (
    <Form
      key={made}
      refused={refused}
      aria-label={`Say something about ${unicode}`}
      onSubmit={async (form) => {
        const answerBy = dayIn(form, 'answerBy');
        const said = {
          id,
          isOurs,
          byMail: isOurs && byMail,
          text: String(form.get('text') ?? ''),
          subject: String(form.get('subject') ?? ''),
          figureMinor: minorIn(form, 'figureMinor'),
          ...(answerBy ? { answerBy } : {}),
        };
        const words = isOurs && byMail ? `Sent to ${contact}.` : 'Written down.';
        if ((await save(sayApproachAction(said), words)) !== null) setMade(made + 1);
      }}
    >
      <Actions>
        <Check isSelected={isOurs} onChange={setOurs}>
          You say it
        </Check>
        {isOurs && (
          <Check isSelected={byMail} onChange={setByMail}>
            {contact === '' ? 'Sent as mail: no address is known' : `Sent as mail to ${contact}`}
          </Check>
        )}
      </Actions>
      {isOurs && byMail && <Field name="subject" label="Subject" defaultValue={`About ${unicode}`} />}
      <Field
        name="text"
        label={isOurs ? `Your words about ${unicode}` : `What the holder of ${unicode} says`}
        rows={3}
      />
      <Fields>
        <AmountField name="figureMinor" label={`Figure, ${currency}`} currency={currency} amount={null} />
        <DayField name="answerBy" label="Answer by" />
      </Fields>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          {isOurs && byMail ? 'Send it' : 'Write it down'}
        </Button>
      </Actions>
    </Form>
  );
}
