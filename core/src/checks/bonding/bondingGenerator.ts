import { type Check, unknownFinding, checkOf } from '../check.ts';

/** How a generator is connected decides what is live while it runs: unsaid, it is not known. */
export const bondingGenerator: Check<'bonding.generator'> = checkOf({
  id: 'bonding.generator',
  title: 'Connection of the generator',
  family: 'bonding',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its connection is not stated.',
    tight: '{{subject}}: its connection is not stated.',
    within: '{{subject}}: its connection is stated.',
    unknown: '{{subject}}: what it makes live is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.generators.flatMap(({ generator }) => {
      const path = ['generators', generator.id];
      const missing = [
        ...(generator.connection === undefined ? [[...path, 'connection']] : []),
        ...(generator.connection === 'inlet' && generator.inletAt === undefined
          ? [[...path, 'inletAt']]
          : []),
        ...(generator.stackId === undefined ? [[...path, 'stackId']] : []),
      ];
      const subject = { kind: 'generator', id: generator.id, label: generator.name } as const;
      return missing.length === 0 ? [] : [unknownFinding(bondingGenerator.id, context, subject, '', missing)];
    }),
});
