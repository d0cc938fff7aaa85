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

/** Switches between the day and the night chart. Until used, the system decides. */
export function ThemeSwitch() {
  const [night, setNight] = useState(false);
  useEffect(() => {
    const chosen = document.documentElement.dataset.theme;
    setNight(chosen ? chosen === 'night' : matchMedia('(prefers-color-scheme: dark)').matches);
  }, []);
  const to = night ? 'day' : 'night';
  return (
    <Quiet
      data-kind="plain"
      onPress={() => {
        document.documentElement.dataset.theme = to;
        void cookieStore.set({ name: 'theme', value: to, path: '/', expires: Date.now() + A_YEAR_S * 1000 });
        setNight(!night);
      }}
    >
      {night ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}
      {night ? 'Day chart' : 'Night chart'}
    </Quiet>
  );
}
