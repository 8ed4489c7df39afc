import type { LinkKind } from '../../installation/network.ts';

/** What a link of comms is called. */
export const LINK_WORDS: Readonly<Record<LinkKind, string>> = {
  'parallel-bus': 'parallel bus',
  'battery-bus': 'battery bus',
  'meter-bus': 'meter bus',
  'controller-bus': 'controller bus',
  'sensor-pair': 'sensor pair',
  'dry-contact': 'dry contact',
  'box-bus': 'bus of a combiner or transfer box',
  'control-supply': 'control supply',
  'shutdown-link': 'rapid-shutdown link',
  network: 'network of the building',
};
