import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import type { Port } from '../network.ts';

type Joined = Given['design']['earthPoints'][number]['joins'][number];

const EARTH_WORDS: Readonly<Record<Joined, string>> = {
  'grid-earth': 'the earth of the grid',
  'backed-up-earth': 'the earth of a backed-up board',
  chassis: 'the chassis of an inverter',
  electrode: 'a local electrode',
  'generator-frame': 'the frame of a generator',
};

/** Whether there is what a point says that it joins. A choice that nobody has made is not held against it. */
function isThere({ design: { site, partitions, stacks, generators } }: Given, joined: Joined): boolean {
  switch (joined) {
    case 'grid-earth':
      return site.grid !== 'none';
    case 'backed-up-earth':
      return partitions.some(({ kind }) => kind !== 'grid');
    case 'chassis':
      return stacks.length > 0;
    case 'electrode':
      return site.localElectrode !== 'none';
    case 'generator-frame':
      return generators.length > 0;
  }
}

/** The points where earths are joined, and the local electrode. */
export function layEarthing(laying: Laying, given: Given, service: Port): void {
  const { design } = given;
  for (const point of design.earthPoints) {
    const from = ['earthPoints', point.id];
    const part = laying.part({ id: `earth-point ${point.id}`, kind: 'earth-point', label: point.name, from });
    for (const joined of point.joins)
      if (!isThere(given, joined))
        laying.problems.push({
          path: [...from, 'joins'],
          message: `joins ${EARTH_WORDS[joined]}, and there is none`,
        });
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
