/** Any board file or set of files to a model: looks at what is in it, not only at the name's ending. */
import { BoardFileError } from './fileError.ts';
import { isGerberSet, readGerberSet, type FileRole, type LayerRole, type TextFile } from './gerber/readSet.ts';
import { readSExpressionBoard } from './sexpr/readBoard.ts';
import { decodeText } from './text.ts';
import { toModel, type ImportedBoard } from './toModel.ts';
import { isZip, unzipBounded } from './zip.ts';

export interface NamedFile {
  name: string;
  bytes: Uint8Array;
}

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

/** The file's own name without folder and ending. */
const boardName = (path: string) => (path.split(/[\\/]/).pop() ?? path).replace(/\.[^.]*$/, '');
