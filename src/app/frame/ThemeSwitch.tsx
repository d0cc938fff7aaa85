'use client';
import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';

const Quiet = styled(Button)`
  margin: 0 6px;
  padding: 4px 8px;
  color: var(--ink-soft);
`;

const A_YEAR_S = 31_536_000;

/** Shows the day or the night chart from now on. */
export function showChart(chart: 'day' | 'night'): void {
  document.documentElement.dataset.theme = chart;
  void cookieStore.set({ name: 'theme', value: chart, path: '/', expires: Date.now() + A_YEAR_S * 1000 });
}

/** The chart that is shown: as chosen, else as the system has it. */
export function shownChart(): 'day' | 'night' {
  const chosen = document.documentElement.dataset.theme;
  if (chosen === 'day' || chosen === 'night') return chosen;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

/** Switches between the day and the night chart. Until used, the system decides. */
export function ThemeSwitch() {
  const [night, setNight] = useState(false);
  useEffect(() => {
    setNight(shownChart() === 'night');
  }, []);
  const to = night ? 'day' : 'night';
  return (
    <Quiet
      data-kind="plain"
      onPress={() => {
        showChart(to);
        setNight(!night);
      }}
    >
      {night ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}
      {night ? 'Day chart' : 'Night chart'}
    </Quiet>
  );
}
