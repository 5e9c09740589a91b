// Keeps an application and its database going: what dies is started again, where it was.
import { say, Trouble, wait } from './common.mjs';

const LOOK_MS = 500;
/** An application that dies this often within a minute is not started again. */
const MOST_DEATHS = 5;
const MINUTE_MS = 60_000;

/**
 * Runs until `stop` is called or the application cannot be kept alive; resolves with an exit code.
 * @param {{ start: () => Promise<{ child: import('node:child_process').ChildProcess, url: string, ended: Promise<number> }>, database?: { start: () => Promise<void>, alive: () => boolean, address: () => string } }} what
 */
export function supervise({ start, database }) {
  let app;
  let stopping = false;
  const deaths = [];

  async function watchDatabase() {
    while (!stopping) {
      await wait(LOOK_MS);
      if (stopping || !database || database.alive()) continue;
      say('The database is gone; it is started again.');
      const before = database.address();
      await database.start().then(
        () => say('The database is back.'),
        (error) => say(error.message),
      );
      // its old port was taken meanwhile: the application has to be told the new one
      if (database.address() !== before) app?.child.kill('SIGTERM');
    }
  }

  /** The application as it runs now and whenever it had to be started again. */
  async function keepApp(first) {
    app = first;
    for (;;) {
      const code = await app.ended;
      if (stopping) return 0;
      const now = Date.now();
      deaths.push(now);
      while (deaths[0] < now - MINUTE_MS) deaths.shift();
      if (deaths.length >= MOST_DEATHS) {
        say(`The application ended ${MOST_DEATHS} times within a minute; what it said stands above.`);
        return code || 1;
      }
      say(`The application ended (${code}); it is started again.`);
      for (let next; !next;) {
        if (stopping) return 0;
        next = await start().catch((error) => {
          if (!(error instanceof Trouble)) throw error;
          say(error.message);
          return wait(2000);
        });
        if (next) app = next;
      }
      say('The application is back.');
    }
  }

  return {
    async run(first) {
      void watchDatabase();
      try {
        return await keepApp(first);
      } finally {
        stopping = true;
      }
    },
    stop() {
      stopping = true;
      app?.child.kill('SIGTERM');
    },
  };
}
