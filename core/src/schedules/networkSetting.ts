import type { Known } from '../values/known.ts';
import type { Setting } from './setting.ts';

const WAYS = { cable: 'by cable', radio: 'by radio', none: 'not joined' } as const;

/**
 * How a device is joined to the network of the building. One that can be joined and of which nobody has decided it is asked about, where
 * it speaks for its set.
 */
export function networkSetting(
  way: keyof typeof WAYS | undefined,
  type: Known<{ readonly networkBy?: string | undefined }>,
  speaks: boolean,
): Setting[] {
  const can = type.known ? type.value.networkBy : undefined;
  if (way === undefined && (!speaks || can === undefined || can === 'none')) return [];
  return [
    {
      id: 'network',
      setting: 'Network of the building',
      wanted: way === undefined ? null : WAYS[way],
      why:
        way === 'none'
          ? 'Decided so: nothing is reported away from the site.'
          : 'Reports and firmware come by it; it works without.',
    },
  ];
}
