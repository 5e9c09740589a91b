import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Others begin by size; these are small and take long: they come first, so that none of them goes on alone at the end. */
const LONG = /\/(benchTimes|stability|rescue|search|unmarked)\.test\.ts$/;
class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const bySize = await super.sort(files);
    const isLong = (file: TestSpecification) => LONG.test(file.moduleId);
    return [...bySize.filter(isLong), ...bySize.filter((f) => !isLong(f))];
  }
}

/** Pure functions: files share what they import, on every core there is. */
export default defineConfig({
  test: {
    include: ['test/**/*.test.ts'],
    testTimeout: 60_000,
    isolate: false,
    maxWorkers: '100%',
    sequence: { sequencer: LongFirst },
  },
});
