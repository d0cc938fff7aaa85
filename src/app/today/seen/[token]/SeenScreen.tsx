'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Section } from '@/ui/text/Sheet';
import { useTitle } from '../../../frame/PageTitle';
import { namePage } from '../../../frame/pages';
import { seenAction } from '../../actions';

/** What a reminder's mail was about, and the button that says that somebody has seen it. */
export function SeenScreen({
  token,
  reminder,
  problem,
}: {
  token: string;
  reminder: { readonly ascii: string; readonly unicode: string; readonly isSeen: boolean } | null;
  problem: string | null;
}) {
  useTitle('Seen');
  const [isSeen, setSeen] = useState(reminder?.isSeen ?? false);
  const [refused, setRefused] = useState<string | null>(problem);
  const see = async () => {
    const answer = await seenAction(token);
    setRefused(isRefusal(answer) ? answer.message : null);
    setSeen(!isRefusal(answer));
  };
  const name = reminder && <Link href={namePage(reminder.ascii)}>{reminder.unicode}</Link>;
  return (
    <Page>
      <Section>
        {refused && <p role="alert">{refused}</p>}
        {name &&
          (isSeen ? (
            <p role="status">
              Noted: you have seen what was told of {name}. It is not told again unless its next date moves.
            </p>
          ) : (
            <>
              <p>A mail told you of {name}. Until somebody says that it was seen, it is told again.</p>
              <Actions>
                <Button data-kind="primary" onPress={() => void see()}>
                  I have seen it
                </Button>
              </Actions>
            </>
          ))}
        <p>
          <Link href="/today">Everything that needs a decision</Link>
        </p>
      </Section>
    </Page>
  );
}
