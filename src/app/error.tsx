'use client';
import { useEffect } from 'react';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Section } from '@/ui/text/Sheet';

const AGAIN_MS = 4000;

/** A page that could not be shown: what to do, and it tries again by itself, since a part that was down comes back. */
export default function ErrorPage({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  useEffect(() => {
    const timer = setTimeout(() => {
      void fetch('/api/v1/health', { cache: 'no-store' })
        .then((answer) => answer.ok && location.reload())
        .catch(() => undefined);
    }, AGAIN_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <Page>
      <Section role="alert">
        <h2>This page could not be shown</h2>
        <p>
          Nothing was changed. It is tried again in a moment; if it goes on, the log has the cause
          {error.digest ? `, under ${error.digest}` : ''}.
        </p>
        <Actions>
          <Button data-kind="primary" onPress={reset}>
            Try again
          </Button>
          <ButtonLink href="/setup/log">See the log</ButtonLink>
        </Actions>
      </Section>
    </Page>
  );
}
