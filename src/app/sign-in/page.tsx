import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { deps } from '@/usecases/deps';
import { SignInScreen } from './SignInScreen';

export const metadata: Metadata = { title: 'Sign in' };

/** A page of our own, never one of somebody else’s. */
function pageIn(back: string | string[] | undefined): string {
  return typeof back === 'string' && /^\/(?![/\\])/.test(back) && !back.startsWith('/sign-in') ? back : '/today';
}

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[]>>;
}) {
  const back = pageIn((await searchParams).back);
  if (deps().who?.kind !== 'stranger') redirect(back);
  return <SignInScreen back={back} />;
}
