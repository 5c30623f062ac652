import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { program } from './programs';

/** Makes the sample household once; every household of a test begins with a copy of it. */
export default async function makeSample() {
  const folder = mkdtempSync(join(tmpdir(), 'ruddy-sample-'));
  const server = spawn('dotnet', [program('Server'), '--port', '0', '--data', folder], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((listening, failed) => {
    server.stdout.on('data', (said: Buffer) => String(said).includes('Listening on') && listening());
    server.once('exit', (code) => failed(new Error(`The server ended with ${code}.`)));
  });
  const gone = new Promise((ended) => server.once('exit', ended));
  server.kill('SIGTERM');
  await gone;
  process.env.RUDDY_SAMPLE = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
