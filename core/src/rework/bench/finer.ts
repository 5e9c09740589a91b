/** Runs that leave their bounds are done again with finer steps. */
import { OutOfBoundsError } from '../../thermal/index.ts';

/** Up to so many times as fine; what is out of bounds then is an error. */
const FINEST = 4;

/** What `run` comes to with steps as fine as it needs: usual ones, halved, halved again. */
export async function asFineAsNeeded<T>(run: (finer: number) => Promise<T>): Promise<T> {
  for (let finer = 1; ; finer *= 2)
    try {
      return await run(finer);
    } catch (e) {
      if (!(e instanceof OutOfBoundsError) || finer >= FINEST) throw e;
    }
}
