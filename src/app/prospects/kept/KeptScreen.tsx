'use client';
import { useRouter } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { report } from '@/ui/overlay/Toasts';
import { ofHundred, roughGain, yearsInWords } from '@/ui/text/prospectWords';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { KeptForecast } from '@/usecases/prospects/forecasts';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { dropForecastAction } from '../actions';

/** Forecasts that were kept, to be opened and held against what has come. */
export function KeptScreen({ forecasts }: { forecasts: readonly KeptForecast[] }) {
  const { style } = useLedger();
  const router = useRouter();
  useTitle('Prospects', 'looking back');
  if (forecasts.length === 0)
    return (
      <Empty
        title="No forecast has been kept."
        text="Keep the outlook as it is today; a year later you will see what came true of it."
      >
        <ButtonLink href="/prospects" data-kind="primary">
          To the outlook
        </ButtonLink>
      </Empty>
    );
  const forget = async (id: number) => {
    const answer = await dropForecastAction(id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else router.refresh();
  };
  return (
    <Page>
      <Head>
        <Answer>{countOf(forecasts.length, 'forecast was', 'forecasts were')} kept.</Answer>
        <p>Each with its seed and assumptions, so that the same picture can be made again.</p>
      </Head>
      <Section aria-label="Kept forecasts">
        <Wide>
          <Ruled data-middle aria-label="Kept forecasts">
            <thead>
              <tr>
                <th>Forecast</th>
                <th>Made</th>
                <th>Ahead</th>
                <th className="figure">Left over</th>
                <th className="figure">Sales carry on</th>
                <th>Seed</th>
                <th>
                  <span className="visually-hidden">What to do</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {forecasts.map(({ id, label, madeAt, months, fan, currency, seed, paths }) => (
                <tr key={id}>
                  <td>
                    <Link href={`/prospects/kept/${id}`}>{label}</Link>
                  </td>
                  <td>{dayWords(madeAt, style)}</td>
                  <td>{yearsInWords(Math.round(months / 12))}</td>
                  <td className="figure">{roughGain(fan.profit.mean, currency)}</td>
                  <td className="figure">{ofHundred(fan.carries)} paths</td>
                  <td className="soft">
                    {seed}, {paths.toLocaleString('en')} paths
                  </td>
                  <td>
                    <Button data-kind="plain" aria-label={`Forget ${label}`} onPress={() => void forget(id)}>
                      Forget
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      </Section>
    </Page>
  );
}
