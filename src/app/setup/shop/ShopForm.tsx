'use client';
import { useState } from 'react';
import { windowRecords } from '@/core/shop';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import type { Certificates } from '@/usecases/shop/certificates';
import type { ShopSettings } from '@/usecases/shop/settings';
import { useSave } from '../../acts/useSave';
import { saveShopAction } from './actions';

const words = (text: string) => text.split(/[\s,]+/).filter(Boolean);

/** Where buyers' pages stand, where windows are reached, what a bid wants first. */
export function ShopForm({
  shop,
  home,
  certificates,
}: {
  shop: ShopSettings;
  home: string;
  certificates: Certificates;
}) {
  const { save, refused, isBusy } = useSave();
  const [robots, setRobots] = useState(shop.robots);
  const { deposit, place } = shop;
  const currency = deposit?.currency ?? home;

  const saveAll = (form: FormData) => {
    const text = (key: string) => textOf(form, key).trim();
    const percent = text('depositPercent');
    void save(
      saveShopAction({
        url: text('url'),
        robots,
        a: words(text('a')),
        aaaa: words(text('aaaa')),
        cname: text('cname').toLowerCase(),
        nameServers: words(text('nameServers').toLowerCase()),
        acmeDirectory: text('acmeDirectory'),
        acmeMail: text('acmeMail'),
        ...(percent === ''
          ? {}
          : {
              depositPercent: percent.replace(',', '.'),
              depositFromMinor: minorIn(form, 'depositFromMinor') ?? 0,
              depositCurrency: currency,
            }),
      }),
      'Saved. The windows show it within seconds.',
    );
  };

  return (
    <Form aria-label="Shop window" refused={refused} onSubmit={saveAll}>
      <Section>
        <h2>Offers and bids</h2>
        <Fields>
          <Field
            name="url"
            label="Address of buyers’ own pages"
            defaultValue={shop.url ?? ''}
            hint="an address that stays yours when a name goes; empty: nothing is taken"
            placeholder="https://offers.harbour.example"
          />
          <AmountField
            name="depositFromMinor"
            label={`A bid wants a deposit from, ${currency}`}
            currency={currency}
            amount={deposit ? { minor: deposit.fromMinor, currency } : null}
          />
          <Field
            name="depositPercent"
            label="Deposit, % of the most that is bid"
            inputMode="decimal"
            defaultValue={deposit ? String(deposit.percent) : ''}
            hint="empty: bids want no deposit"
          />
        </Fields>
        <Check isSelected={robots} onChange={setRobots}>
          Search engines may list the windows
        </Check>
      </Section>
      <PlaceFields place={place} />
      <CertificateFields acme={shop.acme} held={certificates} isBusy={isBusy} />
    </Form>
  );
}

/** What has to be set at every name for it to show its window. */
function PlaceFields({ place }: { place: ShopSettings['place'] }) {
  return (
    <Section>
      <h2>Where names lead to</h2>
      <p className="soft">
        What has to be set at a name for it to show its window. Each name’s page under Selling says whether DNS shows
        it; it is looked at daily.
      </p>
      <Fields>
        <Field name="a" label="IPv4 addresses (A)" mono defaultValue={place.a.join(' ')} />
        <Field name="aaaa" label="IPv6 addresses (AAAA)" mono defaultValue={place.aaaa.join(' ')} />
        <Field name="cname" label="Host for www (CNAME)" mono defaultValue={place.cname ?? ''} />
        <Field
          name="nameServers"
          label="Name servers that say so"
          mono
          defaultValue={place.nameServers.join(' ')}
          hint="then names are pointed by their registrar’s link"
        />
      </Fields>
      {windowRecords(place).length > 0 && (
        <p className="soft">
          At each name:{' '}
          <code>
            {windowRecords(place)
              .map(({ owner, type, data }) => `${owner} ${type} ${data}`)
              .join(' · ')}
          </code>
        </p>
      )}
    </Section>
  );
}

/** Who gives certificates for the windows, and what stands against some. */
function CertificateFields({
  acme,
  held: { held, problems },
  isBusy,
}: {
  acme: ShopSettings['acme'];
  held: Certificates;
  isBusy: boolean;
}) {
  return (
    <Section>
      <h2>Certificates</h2>
      <p className="soft">
        {acme === null
          ? 'A proxy before the windows has their certificates, or a server that speaks ACME gives them.'
          : held === 0
            ? 'None has come yet: they are asked for once a name leads to its window, every hour.'
            : `${held === 1 ? 'One is' : `${held} are`} held; each is renewed a month before it ends.`}
      </p>
      {problems.map(({ host, problem }) => (
        <p key={host} className="caution">
          <span className="name">{host}</span>: {problem}
        </p>
      ))}
      <Fields>
        <Field
          name="acmeDirectory"
          label="Certificates from (ACME directory)"
          mono
          defaultValue={acme?.directory ?? ''}
          hint="empty: your proxy has them"
        />
        <Field name="acmeMail" label="Its mails go to" defaultValue={acme?.mail ?? ''} />
      </Fields>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Save
        </Button>
      </Actions>
    </Section>
  );
}
