'use client';
import { Link } from '@/ui/controls/Link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { LostName } from '@/usecases/acquiring/comingFree';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';
import { NameLinks } from './NameLinks';

/** Names of one's own that were lost, and the ways to have them back. */
export function LostPart({ lost }: { lost: readonly LostName[] }) {
  const { style } = useLedger();
  return (
    <Section aria-label="Lost">
      <h2>Lost: {namesWords(lost.length)}</h2>
      <Wide>
        <Ruled aria-label="Names that were lost">
          <tbody>
            {lost.map(({ ascii, unicode, goneAt }) => (
              <tr key={ascii}>
                <td>
                  <Link href={namePage(ascii)} className="name">
                    {unicode}
                  </Link>
                </td>
                <td className="soft">no longer held since {dayWords(goneAt, style)}</td>
                <td className="figure">
                  <NameLinks ascii={ascii} unicode={unicode} />
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}
