// The part of the set-up that runs under the lock: node setup-run.mjs '{"debian":[…],"build":[…]}'
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild, ensureDebian, ensurePackages } from './setup.mjs';
import { LOCAL, say, Trouble } from './common.mjs';

const { debian, build } = JSON.parse(process.argv[2]);
try {
  // for who waits for the lock
  writeFileSync(join(LOCAL, 'setup.lock'), `${process.pid}\n`);
  ensureDebian(debian);
  if (build === 'packages') await ensurePackages();
  else await ensureBuild(build);
} catch (error) {
  if (!(error instanceof Trouble)) throw error;
  say(error.message);
  process.exitCode = 1;
}
