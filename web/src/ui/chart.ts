import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js';
import { useMemo } from 'react';
import { useTheme } from '../state/theme.ts';

Chart.register(
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
);
Chart.defaults.animation = false;
Chart.defaults.font.family = "'Archivo Variable', ui-sans-serif, sans-serif";
Chart.defaults.font.size = 12;

/** The inks of the theme, for what is drawn on a canvas and cannot read them by itself. */
export interface ChartInks {
  readonly ink: string;
  readonly quiet: string;
  readonly rule: string;
  readonly touch: string;
  readonly over: string;
  readonly within: string;
  readonly unknown: string;
  readonly tight: string;
}

export function useChartInks(): ChartInks {
  const theme = useTheme((store) => store.theme);
  return useMemo(() => {
    // The theme is an attribute of the root; asking again when it changes is all that is needed.
    const style = getComputedStyle(document.documentElement);
    const ink = (name: string): string => style.getPropertyValue(`--${name}`).trim() || theme;
    return {
      ink: ink('ink'),
      quiet: ink('quiet'),
      rule: ink('rule'),
      touch: ink('touch'),
      over: ink('over'),
      within: ink('within'),
      unknown: ink('unknown'),
      tight: ink('tight'),
    };
  }, [theme]);
}
