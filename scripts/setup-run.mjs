// The part of the set-up that runs under the lock: node setup-run.mjs '{"debian":[…],"build":[…]}'
import { ensureBuild, ensureDebian, ensurePackages } from './setup.mjs';
import { say, Trouble } from './common.mjs';

const { debian, build } = JSON.parse(process.argv[2]);
try {
  ensureDebian(debian);
  if (build === 'packages') ensurePackages();
  else ensureBuild(build);
} catch (error) {
  if (!(error instanceof Trouble)) throw error;
  say(error.message);
  process.exitCode = 1;
}
