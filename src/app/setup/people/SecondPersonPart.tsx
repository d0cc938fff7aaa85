'use client';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { setSecondPersonAction } from './actions';

/** Whether what is grave waits for a second person. */
export function SecondPersonPart({ isAsked }: { isAsked: boolean }) {
  const { ask, isBusy } = useSave();
  return (
    <Section aria-label="Second person">
      <h2>{isAsked ? 'A second person confirms what is grave' : 'No second person is asked'}</h2>
      <p>
        Restores, transfers, registrations, sales, a limit that is raised, and what is above somebody’s limit{' '}
        {isAsked
          ? 'wait under Today until somebody else who may do the same confirms them.'
          : 'are done at once; what is above a limit is refused.'}
      </p>
      <Actions>
        <Button
          isDisabled={isBusy}
          onPress={() =>
            void ask(setSecondPersonAction(!isAsked), isAsked ? 'Nobody is asked.' : 'A second person is asked.')
          }
        >
          {isAsked ? 'Ask nobody' : 'Ask a second person'}
        </Button>
      </Actions>
    </Section>
  );
}
