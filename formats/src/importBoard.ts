/** Any board file or set of files to a model: looks at what is in it, not only at the name's ending. */
import { boardBounds, type BoardModel } from '@orthos/core/board';
import { ringArea } from '@orthos/core/copper';
import { packageById } from '@orthos/core/packages';
import { readBoardJson } from './boardJson.ts';
import { BoardFileError } from './fileError.ts';
import { isGerberSet, readGerberSet, type FileRole, type LayerRole, type TextFile } from './gerber/readSet.ts';
import { readSExpressionBoard } from './sexpr/readBoard.ts';
import { decodeText } from './text.ts';
import { toModel, type ImportedBoard } from './toModel.ts';
import { isZip, unzipBounded, type NamedFile } from './zip.ts';

export interface ImportOptions {
  /** Layers chosen by hand for files of a photoplot set. */
  roles?: Readonly<Record<string, LayerRole>>;
  /** Packages chosen by hand, by the key of the match that they overrule. */
  packages?: Readonly<Record<string, string>>;
  /** Fraction done. */
  progress?: (done: number) => void;
}

export interface BoardImport extends ImportedBoard {
  /** Which file was taken for which layer; absent for one-file boards. */
  roles?: FileRole[];
}

/** Reads board file, photoplot set or zip of either. Throws `BoardFileError` and changes nothing. */
export function importBoard(given: readonly NamedFile[], options: ImportOptions = {}): BoardImport {
  const { progress = () => {}, roles, packages } = options;
  if (given.length === 0) throw new BoardFileError('no file was given');
  const named = (name: string, error: unknown) => {
    if (error instanceof BoardFileError) error.file ??= name;
    return error;
  };
  const opened = given.flatMap((file) => {
    try {
      return isZip(file.bytes) ? unzipBounded(file.bytes) : [file];
    } catch (error) {
      throw named(file.name, error);
    }
  });
  const whole = opened.find((f) => /\.kicad_pcb$/i.test(f.name)) ?? (opened.length === 1 ? opened[0] : undefined);
  if (whole) {
    try {
      const text = decodeText(whole.bytes);
      if (text.trimStart().startsWith('{')) return fromJson(readBoardJson(text));
      if (!isGerberSet([{ name: whole.name, text }])) {
        const parsed = readSExpressionBoard(text, (done) => progress(done * 0.6));
        return toModel(parsed, boardName(whole.name), (done) => progress(0.6 + done * 0.4), packages);
      }
    } catch (error) {
      throw named(whole.name, error);
    }
  }
  const texts: TextFile[] = [];
  for (const file of opened) {
    try {
      texts.push({ name: file.name, text: decodeText(file.bytes) });
    } catch (error) {
      // a picture or a spreadsheet among the plots is no reason to refuse the set
      if (opened.length === 1) throw named(file.name, error);
    }
  }
  if (!isGerberSet(texts)) throw new BoardFileError('none of the files is a board, a photoplot or a drill file');
  const set = readGerberSet(texts, roles, (done) => progress(done * 0.6));
  const made = toModel(
    set.board,
    boardName(given.length === 1 ? given[0].name : 'Imported board'),
    (done) => progress(0.6 + done * 0.4),
    packages,
  );
  return { ...made, roles: set.roles };
}

/** Our own file: whole, but for what only the install that wrote it has (its photos, its copper drawing). */
function fromJson(file: BoardModel): BoardImport {
  const board = { ...file };
  delete board.drawing;
  delete board.photos;
  const { x0, y0, x1, y1 } = boardBounds(board);
  const side = (s: 'top' | 'bottom') => board.parts.filter((p) => p.side === s).length;
  const nets = new Set(board.parts.flatMap((p) => Object.values(p.nets ?? {})));
  const pads = board.parts.reduce((n, p) => n + packageById(p.package).terminals.length, 0);
  return {
    board,
    drawing: { v: 1, nets: [], layers: [] },
    drawingText: '',
    counts: { footprints: board.parts.length, pads, nets: nets.size, top: side('top'), bottom: side('bottom') },
    bbox_mm: { x0, y0, x1, y1, w: x1 - x0, h: y1 - y0 },
    area_mm2: ringArea(board.outline_mm.flat()) - (board.cutouts_mm ?? []).reduce((a, c) => a + ringArea(c.flat()), 0),
    coverage: Object.fromEntries(board.stack.map((s) => [s.name, s.coverage])),
    matches: [],
    format: 'our own board file',
    ignored: {},
    notes: [
      ...(file.drawing ? ['The copper drawing is not in the file; its coverage for heat is.'] : []),
      ...(file.photos?.length ? ['The photos are not in the file.'] : []),
    ],
  };
}

/** The file's own name without folder and ending. */
const boardName = (path: string) => (path.split(/[\\/]/).pop() ?? path).replace(/\.[^.]*$/, '');
