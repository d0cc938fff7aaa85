'use client';
import { Link } from '@/ui/controls/Link';
import { Answer, Head, Notice, Page } from '@/ui/text/Sheet';
import type { Certificates } from '@/usecases/shop/certificates';
import type { BlockedSender, ShopSettings } from '@/usecases/shop/settings';
import { useTitle } from '../../frame/PageTitle';
import { BlockedPart } from './BlockedPart';
import { ShopForm } from './ShopForm';
import { TextsPart } from './TextsPart';

/** How names that are for sale are shown to buyers, and who of those who write is not heard. */
export function ShopScreen({
  shop,
  home,
  hasMail,
  blocked,
  held,
}: {
  shop: ShopSettings;
  home: string;
  hasMail: boolean;
  blocked: readonly BlockedSender[];
  held: Certificates;
}) {
  useTitle('Shop window', 'what buyers see of the names that are for sale');
  const takes = shop.url !== null && hasMail;
  return (
    <Page>
      <Head>
        <Answer>
          {takes
            ? 'Buyers may make offers and bids in your windows.'
            : 'Your windows show what is for sale, and take nothing yet.'}
        </Answer>
        <p>
          A window stands at every name with a live listing, once the program is started with <code>--shop-port</code>{' '}
          and the name leads there.
        </p>
      </Head>
      {!takes && (
        <Notice>
          <p>
            To take offers, write below where buyers’ own pages stand
            {!hasMail && (
              <>
                {' '}
                and set a mail server under <Link href="/setup/mail">Mail</Link>: every offer is confirmed by mail first
              </>
            )}
            .
          </p>
        </Notice>
      )}
      <ShopForm shop={shop} home={home} certificates={held} />
      <TextsPart texts={shop.texts} />
      <BlockedPart blocked={blocked} />
    </Page>
  );
}
