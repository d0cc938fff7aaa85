'use client';
import type { Forecast } from '@/core/prospects';
import { RateDensity } from '@/ui/chart/RateDensity';
import { groupWords, shareWords } from '@/ui/text/prospectWords';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { useProspects } from './ProspectsContext';

const SHOWN = 40;

/** The groups that share a chance of sale: how many names, what was seen of them, and where their chance is held to lie. */
export function GroupsPart({ forecast }: { forecast: Forecast }) {
  const { assumptions, views } = useProspects();
  const groups = [...forecast.groups].sort((a, b) => b.names - a.names || b.seen.nameYears - a.seen.nameYears);
  const most = Math.max(0.01, ...groups.map(({ spread }) => spread.high * 1.25));
  const view = views.find(({ id }) => id === assumptions.viewId)?.label ?? '';
  const name = (key: string) => groupWords(assumptions.grouping, key, forecast.currency, view);
  return (
    <Section aria-label="Groups that share a chance">
      <h2>Groups that share a chance of sale</h2>
      <Wide least={640}>
        <Ruled data-middle aria-label="Groups">
          <thead>
            <tr>
              <th>Group</th>
              <th className="figure">On offer now</th>
              <th className="figure">Name-years on offer</th>
              <th className="figure">Own sales</th>
              <th className="figure">Sales a year per name</th>
              <th>How sure: 0 to {shareWords(most)}</th>
            </tr>
          </thead>
          <tbody>
            {groups.slice(0, SHOWN).map((group) => (
              <tr key={group.key}>
                <td>{name(group.key)}</td>
                <td className="figure">{group.names.toLocaleString('en')}</td>
                <td className="figure">{group.seen.nameYears.toFixed(1)}</td>
                <td className="figure">{group.seen.sales}</td>
                <td className="figure">
                  <b>{shareWords(group.spread.mean)}</b>
                  <div className="soft">
                    {shareWords(group.spread.low)} to {shareWords(group.spread.high)}
                  </div>
                </td>
                <td>
                  <RateDensity
                    rate={group.rate}
                    spread={group.spread}
                    most={most}
                    label={`${name(group.key)}: between ${shareWords(group.spread.low)} and ${shareWords(group.spread.high)} a year with nine chances in ten`}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      {groups.length > SHOWN && (
        <p className="soft">
          The {SHOWN} greatest of {groups.length} groups.
        </p>
      )}
      <p className="soft">
        On offer counts from the day a name came into the ledger with an asking price, or was given one; what was before
        is not known. Names that were sold, dropped or lost count too.
      </p>
    </Section>
  );
}
