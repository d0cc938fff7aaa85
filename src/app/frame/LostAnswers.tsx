'use client';
import { useEffect } from 'react';
import { report } from '@/ui/overlay/Toasts';

const LOST = 'No answer came. What you asked for may have been done, or not: look, and ask again if it was not.';

/** A window that asks again and again by itself is told of once in so long: as long as a report of trouble stands. */
const TOLD_EVERY_MS = 15_000;

/** A request whose connection broke: browsers say so by a `TypeError` of their own (Fetch standard, “network error”). */
const isLost = (reason: unknown) => reason instanceof TypeError && /fetch|network|load failed/i.test(reason.message);

/** Says so where a button was pressed and no answer came. What was refused is told at its place; this nobody else hears. */
export function LostAnswers() {
  useEffect(() => {
    let toldAt = Number.NEGATIVE_INFINITY;
    const hear = (event: PromiseRejectionEvent) => {
      if (!isLost(event.reason)) return;
      // Told: the console need not say it once more.
      event.preventDefault();
      if (performance.now() - toldAt < TOLD_EVERY_MS) return;
      toldAt = performance.now();
      report({ text: LOST, problem: true });
    };
    window.addEventListener('unhandledrejection', hear);
    return () => window.removeEventListener('unhandledrejection', hear);
  }, []);
  return null;
}
