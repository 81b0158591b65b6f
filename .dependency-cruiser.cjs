/**
 * Imports run one way: pages -> views -> ui, workers -> core; pages -> server -> formats -> core.
 * Inside core the folders lean on each other in one order, never in a circle.
 */
const core = [
  'base',
  'drawing',
  'hand',
  'plan',
  'report',
  'terrain',
  'land',
  'wire',
  'strands',
  'posts',
  'ends',
  'earth',
  'pulse',
  'joins',
  'power',
  'faults',
  'wiring',
  'supplies',
  'compare',
  'sizing',
  'build',
  'rounds',
  'findings',
  'parts',
  'edit',
];
const PART_KEYS = '^src/core/parts/(keys|[^/]+/(keys|planKeys|reportKeys))\\.ts$';
/** A folder of core may import itself and the folders before it; the top files may import all. */
const coreOrder = core.map((folder, i) => ({
  name: `core-order-${folder}`,
  severity: 'error',
  comment: `src/core/${folder} may import only ${core.slice(0, i).join(', ') || 'nothing else'} of core`,
  from: { path: `^src/core/${folder}/` },
  to: {
    path: '^src/core/',
    pathNot: [
      ...core.slice(0, i + 1).map((f) => `^src/core/${f}/`),
      // What the parts keep in plan and report are schemas alone: the types of both are read from them.
      ...(i > 0 ? [PART_KEYS] : []),
    ],
  },
}));

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-alone',
      severity: 'error',
      comment: 'the heart imports no interface, no input or output and no framework',
      from: { path: '^src/core/' },
      to: {
        pathNot: [
          '^src/core/',
          '^data/',
          'node_modules/(d3-contour|d3-delaunay|d3-array|delaunator|flatbush|flatqueue|polylabel|tinyqueue|@sinclair/typebox)/',
        ],
      },
    },
    {
      name: 'formats-on-core',
      severity: 'error',
      from: { path: '^src/formats/' },
      to: { path: '^src/(server|views|ui|workers|pages)/' },
    },
    {
      name: 'server-below-pages',
      severity: 'error',
      from: { path: '^src/server/' },
      to: { path: '^src/(views|ui|workers|pages)/' },
    },
    {
      name: 'ui-knows-no-view',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(views|pages|server)/' },
    },
    {
      name: 'workers-on-core',
      severity: 'error',
      from: { path: '^src/workers/' },
      to: { path: '^src/(views|pages|server|ui)/' },
    },
    {
      name: 'views-not-on-server',
      severity: 'error',
      from: { path: '^src/views/' },
      to: { path: '^src/(server|pages)/' },
    },
    {
      name: 'part-keys-are-schemas',
      severity: 'error',
      from: { path: PART_KEYS },
      to: {
        path: '^src/core/',
        pathNot: [PART_KEYS, '^src/core/(plan/schemaParts|base/type)\\.ts$'],
      },
    },
    ...coreOrder,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types'] },
  },
};
