/** Rooms and what they may use (docs/architecture.md). Dependencies point toward core. */
const rule = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });
const room = (names) => `^src/(${names})/`;

const useCases =
  '^src/services/[^/]+/(accept|request|refuse|correct|take|set|make|put|edit|approve|reopen|send|receive|sell|count|allocate|release|ship|reverse|close|undo|start|cancel|upload|map|apply|invite|found|change|reset|save|remove|amend|confirm|copy|paste|remind|add|buy)[A-Z]';

module.exports = {
  forbidden: [
    rule('no-cycles', { pathNot: '^node_modules' }, { circular: true }, 'A cycle has no direction.'),
    rule(
      'core-alone',
      { path: room('core'), pathNot: '\\.test\\.ts$' },
      { pathNot: room('core') },
      'Core imports core only.',
    ),
    rule(
      'core-capabilities',
      { path: '^src/core/([^/]+)/', pathNot: '\\.test\\.ts$' },
      { path: '^src/core/([^/]+)/(?!index\\.ts$)', pathNot: '^src/core/$1/' },
      'A capability uses another through its index.',
    ),
    rule(
      'data-uses-core',
      { path: room('data') },
      { path: '^src/', pathNot: room('core|data') },
      'Data knows core, nothing above it.',
    ),
    rule(
      'services-below-app',
      { path: room('services') },
      { path: room('ui|app|workers|formats|jobs|standins') },
      'Services know core and data.',
    ),
    rule(
      'formats-use-core',
      { path: room('formats') },
      { path: '^src/', pathNot: room('core|formats') },
      'Formats know what a cell is, not what it is for.',
    ),
    rule(
      'standins-alone',
      { path: room('standins') },
      { path: '^src/', pathNot: room('core|standins') },
      'Stand-ins are outside parties.',
    ),
    rule(
      'sql-only-in-data',
      { pathNot: ['^src/data/', '^scripts/', '^tests/', '^node_modules', '^src/services/deps\\.ts$'] },
      { path: 'node_modules/mysql2' },
      'SQL lives in src/data.',
    ),
    rule(
      'use-cases-apart',
      { path: useCases },
      {
        path: useCases,
        dependencyTypesNot: ['type-only'],
      },
      'A use case never calls another; shared steps take the open transaction.',
    ),
    rule(
      'ui-without-server',
      { path: room('ui') },
      { path: room('data|app'), dependencyTypesNot: ['type-only'] },
      'Components know no database and no routes.',
    ),
    rule(
      'ui-types-of-services',
      { path: room('ui') },
      { path: room('services'), dependencyTypesNot: ['type-only'] },
      'Components know the shapes services return, not the services.',
    ),
    rule(
      'app-through-services',
      { path: room('app') },
      { path: '^src/data/(?!(errors|pool)\\.ts$)' },
      'Pages and handlers call services.',
    ),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    includeOnly: '^(src|scripts|tests)/|^node_modules/mysql2',
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
