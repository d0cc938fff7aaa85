'use client';
import NextLink from 'next/link';
import { type ComponentProps, useState } from 'react';

/**
 * A link to another page of the application. What that page runs is fetched once a pointer is over the link, not for each link in sight: a page
 * with many links would ask the server dozens of times for pages that nobody opens. `prefetch={false}` fetches nothing, for what is downloaded.
 */
export function Link({ prefetch, onPointerEnter, ...link }: ComponentProps<typeof NextLink>) {
  const [isNear, setNear] = useState(false);
  return (
    <NextLink
      {...link}
      prefetch={isNear ? prefetch : false}
      onPointerEnter={(event) => {
        setNear(true);
        onPointerEnter?.(event);
      }}
    />
  );
}
