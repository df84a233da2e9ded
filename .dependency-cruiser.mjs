/** No circle of imports between folders of the core, or between files anywhere: arrows point one way. */
export default {
  forbidden: [
    {
      name: 'no-circle-of-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/core' },
      to: { circular: true, path: '^src/core' },
    },
    { name: 'no-circle-of-files', severity: 'error', from: { path: '^src' }, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.ts$|^src/core/testing' },
    tsConfig: { fileName: 'tsconfig.json' },
    // What is imported for its types alone is a dependency all the same.
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: ['.ts', '.js', '.mjs', '.svelte'] },
  },
};
