import { create } from 'zustand';

export type Theme = 'light' | 'dark';
const KEY = 'bastion.theme';

function wanted(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === 'light' || kept === 'dark') return kept;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}

function show(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
}

interface ThemeStore {
  theme: Theme;
  choose: (theme: Theme) => void;
}

/** Light or dark; follows the system until somebody chooses. */
export const useTheme = create<ThemeStore>((set) => {
  const theme = wanted();
  show(theme);
  return {
    theme,
    choose: (next) => {
      localStorage.setItem(KEY, next);
      show(next);
      set({ theme: next });
    },
  };
});
