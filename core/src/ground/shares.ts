/** Work in shares: here, and at the same time wherever somebody is idle. What comes back is the same wherever it was done. */

/** Somebody who was idle, and has been told what the questions are about. */
export interface Helper<Q = unknown, A = unknown> {
  /** Answers a question; undefined where something else is waiting: it stays unanswered, and the helper is gone. */
  ask: (question: Q) => Promise<A | undefined>;
  done: () => void;
}

/**
 * Answers of all questions, in their order. `here` answers them one after another from the first on; `idle` gives a helper where there is one, who
 * takes them from the last on. It is asked for again before each question. Rejects with the first failure.
 */
export async function inShares<Q, A>(
  questions: readonly Q[],
  here: (question: Q) => Promise<A>,
  idle?: () => Promise<Helper<Q, A> | undefined>,
): Promise<A[]> {
  const answers: A[] = Array.from({ length: questions.length });
  const open = questions.map((_, n) => n);
  let helping: Promise<void>[] = [];
  const help = async () => {
    const helper = await idle?.();
    if (!helper) return;
    try {
      // there may be more than one
      callForHelp();
      for (let n = open.pop(); n !== undefined; n = open.pop()) {
        const answer = await helper.ask(questions[n]);
        if (answer === undefined) return void open.push(n);
        answers[n] = answer;
      }
    } finally {
      helper.done();
    }
  };
  function callForHelp() {
    if (!idle || open.length === 0) return;
    const helper = help();
    // what fails is told below, even where something else has failed before
    helper.catch(() => undefined);
    helping.push(helper);
  }
  try {
    while (open.length > 0) {
      if (open.length > 1) callForHelp();
      for (let n = open.shift(); n !== undefined; n = open.shift()) {
        answers[n] = await here(questions[n]);
        callForHelp();
      }
      // a helper that went away leaves a question
      while (helping.length > 0) {
        const before = helping;
        helping = [];
        await Promise.all(before);
      }
    }
    return answers;
  } finally {
    // after a failure nobody goes on
    open.length = 0;
  }
}
