import type { Metadata } from 'next';
import localFont from 'next/font/local';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { formatInstant } from '@/core/time';
import { CspNonce, StyledRegistry } from '@/ui/theme/StyledRegistry';
import { deps } from '@/usecases/deps';
import { ledgerChoice } from '@/usecases/ledgers/choice';
import { personOf } from '@/usecases/people/identify';
import { shownSettings } from '@/usecases/settings';
import { undoLastAction } from './acts/undo/actions';
import { Frame } from './frame/Frame';

const text = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
  variable: '--font-text',
  weight: '200 800',
  fallback: ['sans-serif'],
});
const names = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2',
  variable: '--font-names',
  weight: '200 800',
  fallback: ['monospace'],
});

export const metadata: Metadata = {
  title: { default: 'Name Ledger', template: '%s · Name Ledger' },
  description: 'Every name, its next deadline, and what it will cost.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const asked = await headers();
  const nonce = asked.get('x-nonce') ?? undefined;
  const theme = (await cookies()).get('theme')?.value;
  const world = deps();
  const isDoorway = world.who?.kind === 'stranger' || asked.get('x-doorway') === 'yes';
  const person = personOf(world.who);
  return (
    <html
      lang="en"
      className={`${text.variable} ${names.variable}`}
      data-shows={isDoorway ? undefined : 'ledger'}
      {...(theme === 'day' || theme === 'night' ? { 'data-theme': theme } : {})}
    >
      <head>
        <CspNonce nonce={nonce} />
      </head>
      <body>
        <StyledRegistry nonce={nonce}>
          {isDoorway ? (
            children
          ) : (
            <Frame
              now={formatInstant(world.clock())}
              undoLast={undoLastAction}
              choice={ledgerChoice()}
              person={person?.name ?? null}
              {...(await shownSettings(world, asked.get('accept-language')))}
            >
              {children}
            </Frame>
          )}
        </StyledRegistry>
      </body>
    </html>
  );
}
