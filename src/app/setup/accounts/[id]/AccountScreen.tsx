'use client';
import { Notice, Page } from '@/ui/text/Sheet';
import type { HeldAccount } from '@/usecases/accounts/accounts';
import type { PriceRow } from '@/usecases/accounts/prices';
import type { LinkRow } from '@/usecases/links/links';
import { useTitle } from '../../../frame/PageTitle';
import { AccountForm } from './AccountForm';
import { LinkSection } from './LinkSection';
import { PriceList } from './PriceList';

/** One account: its rules, its payment methods in order, its balance, and its price list. */
export function AccountScreen({
  account,
  prices,
  link,
  needsLogin = false,
}: {
  account: HeldAccount | null;
  prices: readonly PriceRow[];
  link: LinkRow | null;
  /** Another key has sealed the link's password. */
  needsLogin?: boolean;
}) {
  useTitle(account?.label ?? 'New account', account ? `${account.names} names` : '');
  return (
    <Page>
      {account && !account.rulesKnown && (
        <Notice>
          These are the usual rules, taken because nobody has said better: charged 5 days before the end, a late window
          (grace period) of 45 days. Check them at the registrar, then save.
        </Notice>
      )}
      <AccountForm account={account} />
      {account && <LinkSection accountId={account.id} link={link} needsLogin={needsLogin} />}
      {account && <PriceList accountId={account.id} currency={account.currency} prices={prices} />}
    </Page>
  );
}
