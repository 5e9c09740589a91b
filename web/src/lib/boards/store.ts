/** Board models to and from the server. */
import { Bytes, send } from '$lib/jobs/send';
import type { BoardModel } from '@orthos/core/board';
import type { CopperDrawing } from '@orthos/core/copper';
import { v7 } from 'uuid';

async function gzip(text: string): Promise<Blob> {
  const packed = new Blob([text]).stream().pipeThrough(new CompressionStream('gzip'));
  return new Response(packed).blob();
}

/** Stores a drawing under the hash that its board names. */
async function storeDrawing(hash: string, text: string): Promise<void> {
  const body = await gzip(text);
  await send('PUT', `/api/boards/drawings/${hash}`, new Bytes(body, 'application/gzip'));
}

/** Makes a board model and gives its id back; throws `SendError`. */
export async function storeBoard(
  doc: BoardModel,
  more: { field?: string; origin?: string; publish?: boolean; drawingText?: string },
): Promise<string> {
  const { drawingText, ...rest } = more;
  if (drawingText && doc.drawing) await storeDrawing(doc.drawing, drawingText);
  const id = v7();
  await send('POST', '/api/boards', { id, doc, ...rest });
  return id;
}

/** Replaces the draft of a board that is there already, and publishes it; throws `SendError`. */
export async function replaceBoard(id: string, doc: BoardModel, drawingText?: string): Promise<void> {
  if (drawingText && doc.drawing) await storeDrawing(doc.drawing, drawingText);
  const { version } = (await send('GET', `/api/boards/${id}/draft`)) as { version: number };
  await send('PUT', `/api/boards/${id}/draft`, { version, doc });
  await send('POST', `/api/boards/${id}/publish`, {});
}

const drawings = new Map<string, Promise<CopperDrawing | null>>();

/** The copper drawing of that hash; null when there is none or nobody answers. Asked for once. */
export function loadDrawing(hash: string): Promise<CopperDrawing | null> {
  let wanted = drawings.get(hash);
  if (!wanted) {
    wanted = send('GET', `/api/boards/drawings/${hash}`).then(
      (drawing) => drawing as CopperDrawing,
      () => null,
    );
    drawings.set(hash, wanted);
    void wanted.then((d) => d === null && drawings.delete(hash));
  }
  return wanted;
}
