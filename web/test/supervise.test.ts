/** What dies is started again: the application, the database, both; and a stop is a stop. */
import { spawn } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { supervise } from '../../scripts/supervise.mjs';

/** A process that lives until it is killed, standing for the application. */
function starter(script = 'setInterval(() => {}, 1000)') {
  const started: ReturnType<typeof spawn>[] = [];
  const start = async () => {
    const child = spawn(process.execPath, ['-e', script], { stdio: 'ignore' });
    started.push(child);
    const ended = new Promise<number>((done) => child.once('exit', (code) => done(code ?? 1)));
    return { child, url: 'http://127.0.0.1:1', ended };
  };
  return { started, start };
}
const until = async (holds: () => boolean) => {
  for (let n = 0; n < 200 && !holds(); n++) await new Promise((done) => setTimeout(done, 50));
  expect(holds()).toBe(true);
};

describe('a supervisor', () => {
  it('starts a killed application again, and stops when it is told to', async () => {
    const { started, start } = starter();
    const keeper = supervise({ start });
    const over = keeper.run(await start());
    for (const n of [1, 2]) {
      started[n - 1].kill('SIGKILL');
      await until(() => started.length === n + 1);
    }
    keeper.stop();
    expect(await over).toBe(0);
    expect(started).toHaveLength(3);
  });
  it('gives up on one that dies at once again and again', async () => {
    const { started, start } = starter('process.exit(7)');
    expect(await supervise({ start }).run(await start())).toBe(7);
    expect(started).toHaveLength(5);
  });
  it('starts a database again that is gone; one that comes back elsewhere is told to the application', async () => {
    const { started, start } = starter();
    let [alive, address, starts] = [true, 'a', 0];
    const database = {
      alive: () => alive,
      address: () => address,
      start: async () => {
        starts++;
        alive = true;
      },
    };
    const keeper = supervise({ start, database });
    const over = keeper.run(await start());
    alive = false;
    await until(() => starts === 1 && alive);
    expect(started).toHaveLength(1);
    database.start = async () => {
      [alive, address] = [true, 'b'];
    };
    alive = false;
    await until(() => started.length === 2);
    keeper.stop();
    await over;
  });
});
