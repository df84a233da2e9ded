import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A certificate that nobody vouches for, made for this run. */
export function certificate(): { key: string; cert: string } {
  const folder = mkdtempSync(join(tmpdir(), 'edgemap-cert-'));
  const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')];
  try {
    const subject = ['-subj', '/CN=www.larkfield.example'];
    execFileSync(
      'openssl',
      ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', ...subject, '-keyout', key, '-out', cert],
      { stdio: 'ignore' },
    );
    return { key: readFileSync(key, 'utf8'), cert: readFileSync(cert, 'utf8') };
  } finally {
    rmSync(folder, { recursive: true });
  }
}
