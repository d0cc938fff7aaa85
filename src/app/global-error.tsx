'use client';

/** When not even the frame could be drawn. Without styles of its own, for none may stand in a page without a nonce. */
export default function GlobalError({ reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <main>
          <h1>Name Ledger could not show this page</h1>
          <p>Nothing was changed. Load it again in a moment; if it goes on, the log has the cause.</p>
          <button type="button" onClick={reset}>
            Try again
          </button>
        </main>
      </body>
    </html>
  );
}
