/** The dependency rule of the house: the core knows nobody, the shells know the core, and inside the core the arrows point down. */

/** What lies below everything that reads an installation: each line with all lines before it. */
const GROUND = ['values', 'network', 'codes', 'catalogue', 'design', 'words'];
const LAID = [...GROUND, 'installation', 'modes', 'figures'];
const JUDGED = [...LAID, 'sizing', 'checks'];

/** Each room of the core with the rooms it may look into besides itself. */
const MAY_LOOK_INTO = {
  values: [],
  network: ['values'],
  words: ['values'],
  waveform: ['values'],
  codes: ['values', 'network'],
  catalogue: ['values', 'codes', 'words'],
  design: ['values', 'codes', 'catalogue', 'words'],
  installation: GROUND,
  modes: ['values', 'network', 'catalogue', 'installation', 'words'],
  figures: [...GROUND, 'installation', 'modes'],
  sizing: ['values', 'codes', 'catalogue', 'installation', 'figures', 'words'],
  checks: [...LAID, 'sizing'],
  formats: ['values', 'codes', 'catalogue', 'design', 'words', 'diagram', 'waveform'],
  schedules: JUDGED.filter((room) => room !== 'network'),
  diagram: ['values', 'catalogue', 'design', 'installation', 'modes', 'figures', 'words'],
  advise: [...JUDGED, 'schedules'],
  procedure: [...JUDGED, 'schedules'],
  rehearse: [...LAID.filter((room) => room !== 'design'), 'waveform', 'checks'],
  site: [...LAID, 'checks', 'procedure', 'rehearse'],
  wire: ['values', 'design', 'catalogue', 'checks', 'procedure', 'advise', 'site'],
};

const ROOMS = Object.entries(MAY_LOOK_INTO).map(([room, others]) => ({
  name: `arrows-of-${room}`,
  comment: `${room} may look into: ${others.join(', ') || 'nothing'}.`,
  severity: 'error',
  from: { path: `^core/src/${room}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^core/src/', pathNot: `^core/src/(${[room, ...others].join('|')})/` },
}));

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-knows-nobody',
      comment:
        'The core imports nothing of ours but itself, and from outside only the schema library and, in formats/dxf.ts, the writer of that format.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '(\\.test\\.ts$|^core/src/testkit/)' },
      to: { pathNot: '^(core/src/|node_modules/(zod|dxf-writer)/)' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|cli)/' },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: '^(server|cli)/' },
      to: { path: '^web/' },
    },
    { name: 'cli-and-server-apart', severity: 'error', from: { path: '^cli/' }, to: { path: '^server/' } },
    {
      name: 'the-simulated-site-knows-the-core-alone',
      comment:
        'It stands for what is on site: nothing of ours but the core is inside it, and nothing of ours looks into it.',
      severity: 'error',
      from: { path: '^site-sim/' },
      to: { path: '^(server|web|cli|scripts|journeys)/' },
    },
    {
      name: 'nobody-looks-into-the-simulated-site',
      severity: 'error',
      from: { path: '^(core|server|web|cli)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^site-sim/' },
    },
    ...ROOMS,
    {
      name: 'checks-do-not-know-each-other',
      comment: 'What two checks share lives in checks/support.',
      severity: 'error',
      from: { path: '^core/src/checks/[a-z]+/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/checks/(?!support/)[a-z]+/' },
    },
    {
      name: 'checks-read-the-installation',
      comment:
        'Modes, figures, checks, procedures and drawings read the installation, never the document around it. Only what lays a whole design from its text may.',
      severity: 'error',
      from: {
        path: '^core/src/(modes|figures|sizing|checks|rehearse|procedure|diagram)/',
        pathNot: '(\\.test\\.ts|checks/analyse\\.ts|procedure/generate\\.ts)$',
      },
      to: { path: '^core/src/design/' },
    },
    {
      name: 'the-test-kit-is-for-tests',
      severity: 'error',
      from: { path: '^(core|server|cli|web)/src/', pathNot: '(\\.test\\.ts$|/testkit/)' },
      to: { path: '/testkit/' },
    },
    {
      name: 'scripts-stand-outside',
      severity: 'error',
      from: { path: '^(core|server|cli|web)/src/' },
      to: { path: '^(scripts|journeys)/' },
    },
    {
      name: 'nothing-inside-imports-the-entry',
      severity: 'error',
      from: { path: '^(core|server|web|cli)/src/', pathNot: '(\\.test\\.ts|index\\.ts)$' },
      to: { path: '^(core|server|cli)/src/index\\.ts$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|types)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
