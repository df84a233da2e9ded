/**
 * `./edgemap dev`: the application, a worker and the demo website from their sources. The application reloads by
 * itself; what runs outside it is built again when a source changes, and its worker is started again. Run by ./edgemap,
 * which has set DATABASE_URL.
 */
import { spawn } from 'node:child_process';
import { build } from 'vite';

const program = 'build-node/main.cjs';
const stop = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop.abort());

/** Starts a child that ends with this process. */
function start(command, args) {
  const child = spawn(command, args, { stdio: 'inherit', signal: stop.signal, killSignal: 'SIGTERM' });
  child.on('error', (error) => error.name === 'AbortError' || console.error(error.message));
  return child;
}

const programs = [
  'main',
  'parserThread',
  'baseThread',
  'analysisThread',
  'zstdThread',
  'importThread',
  'watchdogThread',
  'demo',
];
let worker = null;
let waiting = null;
/** Starts the worker again, once for all programs that a change has built. */
function restartWorker() {
  clearTimeout(waiting);
  waiting = setTimeout(() => {
    worker?.kill('SIGTERM');
    worker = start('node', [program, 'worker']);
  }, 1000);
}

for (const mode of programs) {
  const watcher = await build({ configFile: 'vite.node.config.ts', mode, logLevel: 'warn', build: { watch: {} } });
  watcher.on('event', ({ code, error }) => {
    if (code === 'ERROR') console.error(error.message);
    if (code === 'END') restartWorker();
  });
}
const port = process.env.PORT ?? '5173';
// Not by npx, which would not pass the signal on.
start('node', ['node_modules/vite/bin/vite.js', 'dev', '--port', port, '--strictPort']).on('exit', () => stop.abort());
stop.signal.addEventListener('abort', () => process.exit(0));
