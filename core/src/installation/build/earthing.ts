import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import type { Port } from '../network.ts';

/** The points where earths are joined, and the local electrode. */
export function layEarthing(laying: Laying, given: Given, service: Port): void {
  const { design } = given;
  for (const point of design.earthPoints) {
    const from = ['earthPoints', point.id];
    const part = laying.part({ id: `earth-point ${point.id}`, kind: 'earth-point', label: point.name, from });
    const port = laying.port(part, 'earth', ['PE']);
    laying.run(service, port, {
      use: 'earth',
      from,
      ...(point.areaMm2 === undefined ? {} : { areaMm2: { known: true, value: point.areaMm2 } }),
    });
  }
  if (design.site.localElectrode !== 'yes') return;
  const from = ['site', 'localElectrode'];
  const part = laying.part({
    id: 'electrode',
    kind: 'electrode',
    label: 'local electrode',
    from,
    ...(design.site.electrodeOhm === undefined ? {} : { rating: `${design.site.electrodeOhm} Ω` }),
  });
  laying.run(service, laying.port(part, 'earth', ['PE']), { use: 'earth', from });
}
