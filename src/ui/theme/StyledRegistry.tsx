'use client';
import { useServerInsertedHTML } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { ServerStyleSheet, StyleSheetManager } from 'styled-components';

/** The document keeps its first nonce: a refresh renders the layout again with a new one. */
export function CspNonce({ nonce }: { nonce: string | undefined }) {
  const [first] = useState(nonce);
  return first ? <meta property="csp-nonce" nonce={first} suppressHydrationWarning /> : null;
}

/** Collects the styles of a server render under the page's nonce; in the browser it is only its children. */
export function StyledRegistry({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  const [sheet] = useState(() => new ServerStyleSheet(nonce ? { nonce } : {}));
  useServerInsertedHTML(() => {
    const styles = sheet.getStyleElement();
    sheet.instance.clearTag();
    return <>{styles}</>;
  });
  if (typeof window !== 'undefined') return <>{children}</>;
  return <StyleSheetManager sheet={sheet.instance}>{children}</StyleSheetManager>;
}
