/**
 * Where every command begins: `node src/cli/start.cjs COMMAND …`. It is run as it stands, and runs the built program.
 *
 * To compile the program takes longer than to analyse a small crawl, so what V8 has compiled is kept beside it, as its
 * code cache, under a name that holds the hash of the program: V8 itself compares lengths only.
 */
/* eslint-disable @typescript-eslint/no-require-imports -- for a script, not a module, can V8 keep what it has compiled */
const { hash } = require('node:crypto');
const { readFileSync, renameSync, writeFileSync } = require('node:fs');
const { createRequire, wrap } = require('node:module');
const { dirname, join } = require('node:path');
const { setFlagsFromString } = require('node:v8');
const { constants, Script } = require('node:vm');

// Most crawls are over before the optimizing compiler has earned what it costs to inline as much as it otherwise does
// (920). What was compiled holds under the same flags only.
setFlagsFromString('--max-inlined-bytecode-size-cumulative=200');

const program = join(__dirname, '..', '..', 'build-node', 'main.cjs');
const source = readFileSync(program, 'utf8');
const compiled = `${program}.${process.version}.${hash('sha1', source).slice(0, 16)}`;

function readCompiled() {
  try {
    return readFileSync(compiled);
  } catch {
    return undefined;
  }
}

/** Keeps what has been compiled by now. Where that cannot be, the next start takes longer, and that is all. */
function keepCompiled() {
  const own = `${compiled}.${process.pid}`;
  try {
    writeFileSync(own, script.createCachedData());
    renameSync(own, compiled);
  } catch {
    // The folder may belong to somebody else.
  }
}

const command = process.argv[2];
// Code that comes from what was kept cannot import modules, as the web application is.
const kept = command === 'serve' ? undefined : readCompiled();
const script = new Script(wrap(source), {
  filename: program,
  cachedData: kept,
  importModuleDynamically: constants.USE_MAIN_CONTEXT_DEFAULT_LOADER,
});
const main = { exports: {} };
script.runInThisContext()(main.exports, createRequire(program), main, program, dirname(program));

// Functions are compiled when they are first called: whoever has crawled has called most of them.
const crawls = ['crawl', 'worker'].includes(command);
if (crawls && (!kept || script.cachedDataRejected)) process.on('exit', (code) => code === 0 && keepCompiled());
