'use client';
import { usePathname } from 'next/navigation';
import styled from 'styled-components';
import { Link } from './Link';

const Line = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  flex: none;
  padding: 10px 26px 0;
  border-bottom: 1px solid var(--rule);
  & a { padding: 4px 0 8px; color: var(--ink); border-bottom: 2px solid transparent; }
  & a[aria-current='page'] { border-color: var(--bearing); font-weight: 600; }
  @media (max-width: 640px) { padding: 6px 14px 0; }
  @media print { display: none; }
`;

export interface Tab {
  readonly href: string;
  readonly text: string;
  /** The pages below it belong to it too, and those below these. */
  readonly hasBelow?: boolean;
  readonly also?: readonly string[];
}

/** The parts of a place, each a page of its own. */
export function Tabs({ label, parts }: { label: string; parts: readonly Tab[] }) {
  const path = usePathname();
  return (
    <Line aria-label={label}>
      {parts.map(({ href, text, hasBelow, also = [] }) => (
        <Link
          key={href}
          href={href}
          aria-current={
            path === href || [...(hasBelow ? [href] : []), ...also].some((one) => path.startsWith(`${one}/`))
              ? 'page'
              : undefined
          }
        >
          {text}
        </Link>
      ))}
    </Line>
  );
}
