/**
 * Serves the demo website: `node demo.cjs PORT KEYFILE CERTFILE LATERFILE`. Once the last file is there, it is some
 * weeks later.
 */
import { existsSync, readFileSync } from 'node:fs';
import { onOrphaned } from '../src/cli/orphaned';
import { serveDemo } from './server';

const [port, keyFile, certFile, laterFile] = process.argv.slice(2);
const certificate = { key: readFileSync(keyFile, 'utf8'), cert: readFileSync(certFile, 'utf8') };
// The port that was used before keeps the address overrides of earlier crawls right; any other will do.
const isLater = () => existsSync(laterFile);
void serveDemo(Number(port), certificate, isLater)
  .catch(() => serveDemo(0, certificate, isLater))
  .then((demo) => process.stdout.write(`${demo.port}\n`));
onOrphaned(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
