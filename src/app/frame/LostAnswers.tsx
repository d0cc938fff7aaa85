'use client';
import { useEffect } from 'react';
import { report } from '@/ui/overlay/Toasts';

const LOST = 'No answer came. What you asked for may have been done, or not: look, and ask again if it was not.';

/** A request whose connection broke: browsers say so by a `TypeError` of their own (Fetch standard, “network error”). */
const isLost = (reason: unknown) => reason instanceof TypeError && /fetch|network|load failed/i.test(reason.message);

/** Says so where a button was pressed and no answer came. What was refused is told at its place; this nobody else hears. */
export function LostAnswers() {
  useEffect(() => {
    const hear = (event: PromiseRejectionEvent) => {
      if (!isLost(event.reason)) return;
      // Told: the console need not say it once more.
      event.preventDefault();
      report({ text: LOST, problem: true });
    };
    window.addEventListener('unhandledrejection', hear);
    return () => window.removeEventListener('unhandledrejection', hear);
  }, []);
  return null;
}
