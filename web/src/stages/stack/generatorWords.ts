/** How a generator is joined, in words. */
export const CONNECTIONS = [
  { value: 'generator-port', label: 'Its own port of the inverter' },
  { value: 'transfer-switch', label: 'Transfer switch ahead of the grid port' },
  { value: 'inlet', label: 'Inlet onto a board, without a switch' },
] as const;
