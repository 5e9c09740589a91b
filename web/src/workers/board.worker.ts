/** Board files, tables and photo edges off the main thread. */
import {
  type BoardModel,
  type EdgeMap,
  edgeMap,
  type Homography,
  type PlacedPart,
  type Snap,
  snapToEdges,
} from '@orthos/core/board';
import {
  BoardFileError,
  decodeText,
  frameFor,
  guessPlacement,
  importBoard,
  mergeNets,
  mergePlacement,
  readIpc356,
  readPlacement,
  type BoardImport,
  type ImportOptions,
  type MergeResult,
  type NamedFile,
  type PlacementReading,
} from '@orthos/formats';
import { expose } from 'comlink';

/** A board that was read, its copper drawing as text only. */
export type BoardReading = Omit<BoardImport, 'drawing' | 'area_mm2'>;

/** What a table does to a board, before it is accepted. */
export interface TablePreview extends MergeResult {
  kind: 'netlist' | 'placement';
  /** How its frame was laid on the board. */
  frame: string;
  off_mm: number | null;
  rows: number;
  notes: string[];
  /** How the columns of a placement list were read. */
  reading?: PlacementReading;
}

/** Comlink keeps only the message of an error: the sentence with file and line. */
function withSentence<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof BoardFileError) throw new Error(error.sentence);
    throw error;
  }
}

let edges: EdgeMap | undefined;

const api = {
  importBoard(
    files: NamedFile[],
    options: Pick<ImportOptions, 'roles' | 'packages'>,
    progress: (done: number) => void,
  ): BoardReading {
    return withSentence(() => {
      // the drawing goes over as text: cloning a hundred thousand shapes would take longer than reading them
      const { board, drawingText, counts, bbox_mm, coverage, matches, format, ignored, notes, roles } = importBoard(
        files,
        {
          ...options,
          progress,
        },
      );
      return { board, drawingText, counts, bbox_mm, coverage, matches, format, ignored, notes, roles };
    });
  },
  readTable(board: BoardModel, file: NamedFile, chosen?: PlacementReading): TablePreview {
    return withSentence(() => {
      try {
        const text = decodeText(file.bytes);
        if (/\.(ipc|d356a?|356)$/i.test(file.name) || /^(C|P)\s|^3[12]7/m.test(text.slice(0, 400))) {
          const { points, notes } = readIpc356(text);
          const frame = frameFor(
            board,
            points.filter((p) => p.ref).map((p) => ({ ref: p.ref, x: p.x, y: p.y })),
          );
          const merged = mergeNets(board, points, frame);
          return { ...merged, kind: 'netlist', frame: frame.from, off_mm: frame.off_mm, rows: points.length, notes };
        }
        const reading = chosen ?? guessPlacement(text);
        const rows = readPlacement(text, reading);
        const frame = frameFor(
          board,
          rows.map((r) => ({ ref: r.ref, x: r.x_mm, y: r.y_mm })),
        );
        const merged = mergePlacement(board, rows, frame);
        return {
          ...merged,
          kind: 'placement',
          frame: frame.from,
          off_mm: frame.off_mm,
          rows: rows.length,
          notes: [],
          reading,
        };
      } catch (error) {
        if (error instanceof BoardFileError) error.file ??= file.name;
        throw error;
      }
    });
  },
  /** Takes the photo that parts will be slid onto. */
  usePhoto(rgba: Uint8ClampedArray, width: number, height: number): void {
    edges = edgeMap(rgba, width, height);
  },
  /** `toPixel` maps board mm to pixels of that photo. */
  snap(toPixel: Homography, part: PlacedPart): Snap | null {
    return edges ? snapToEdges(edges, toPixel, part) : null;
  },
};
export type BoardWorker = typeof api;
expose(api);
