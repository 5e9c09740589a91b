/** One worker for board files and photo edges of a page. Ending it is how a reading is cancelled. */
import { proxy, wrap, type Remote } from 'comlink';
import type { ImportOptions, NamedFile } from '@orthos/formats';
import type { BoardReading, BoardWorker } from '../../workers/board.worker';
import BoardWorkerScript from '../../workers/board.worker?worker';

export type { BoardReading, TablePreview } from '../../workers/board.worker';

export interface BoardTools {
  api: Remote<BoardWorker>;
  end: () => void;
}

export function startBoardTools(): BoardTools {
  const worker = new BoardWorkerScript();
  return { api: wrap<BoardWorker>(worker), end: () => worker.terminate() };
}

/** Reads board files in a worker of their own; rejects with the file's sentence, or an AbortError on `signal`. */
export function importInWorker(
  files: NamedFile[],
  options: Pick<ImportOptions, 'roles' | 'packages'>,
  { signal, onProgress }: { signal: AbortSignal; onProgress: (done: number) => void },
): Promise<BoardReading> {
  const { api, end } = startBoardTools();
  return new Promise<BoardReading>((done, fail) => {
    signal.addEventListener('abort', () => fail(new DOMException('Cancelled.', 'AbortError')), { once: true });
    api.importBoard(files, options, proxy(onProgress)).then(done, fail);
  }).finally(end);
}
