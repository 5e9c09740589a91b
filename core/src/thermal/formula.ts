/**
 * Formulas for a start temperature: numbers, the names given, pi, + - * / ^ ( ), sin cos exp sqrt.
 * `^` binds tighter than a leading minus and groups to the right, as in mathematics.
 */
export class FormulaError extends Error {}

export type Formula = (values: Record<string, number>) => number;

const FUNCTIONS: Record<string, (x: number) => number> = {
  sin: Math.sin,
  cos: Math.cos,
  exp: Math.exp,
  sqrt: Math.sqrt,
};
const TOKEN = /\s*(?:(\d+\.?\d*(?:[eE][+-]?\d+)?|\.\d+(?:[eE][+-]?\d+)?)|([A-Za-z]+)|([-+*/^()]))/y;
const MAX_LENGTH = 1000;
const MAX_DEPTH = 100;

function tokenize(text: string): string[] {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.length) {
    const at = TOKEN.lastIndex;
    if (text.slice(at).trim() === '') break;
    const match = TOKEN.exec(text);
    if (!match) throw new FormulaError(`unexpected "${text[at]}" at character ${at + 1}`);
    tokens.push(match[1] ?? match[2] ?? match[3]);
  }
  return tokens;
}

/** Parses `text`; names other than `names`, pi and the functions are refused. */
export function parseFormula(text: string, names: readonly string[]): Formula {
  if (text.length > MAX_LENGTH) throw new FormulaError(`longer than ${MAX_LENGTH} characters`);
  const tokens = tokenize(text);
  let at = 0;
  let depth = 0;
  const next = () => tokens[at++];

  function sum(): Formula {
    let left = product();
    while (tokens[at] === '+' || tokens[at] === '-') {
      const [a, op, b] = [left, next(), product()];
      left = op === '+' ? (v) => a(v) + b(v) : (v) => a(v) - b(v);
    }
    return left;
  }
  function product(): Formula {
    let left = signed();
    while (tokens[at] === '*' || tokens[at] === '/') {
      const [a, op, b] = [left, next(), signed()];
      left = op === '*' ? (v) => a(v) * b(v) : (v) => a(v) / b(v);
    }
    return left;
  }
  function signed(): Formula {
    if (++depth > MAX_DEPTH) throw new FormulaError('nested too deeply');
    try {
      if (tokens[at] === '-') {
        next();
        const a = signed();
        return (v) => -a(v);
      }
      if (tokens[at] === '+') next();
      return power();
    } finally {
      depth--;
    }
  }
  function power(): Formula {
    const a = atom();
    if (tokens[at] !== '^') return a;
    next();
    const b = signed();
    return (v) => a(v) ** b(v);
  }
  function bracket(): Formula {
    const inner = sum();
    if (next() !== ')') throw new FormulaError('a ")" is missing');
    return inner;
  }
  function atom(): Formula {
    const token = next();
    if (token === undefined) throw new FormulaError('ends too early');
    if (token === '(') return bracket();
    const value = Number(token);
    if (Number.isFinite(value)) return () => value;
    if (token === 'pi') return () => Math.PI;
    if (names.includes(token)) return (v) => v[token];
    if (Object.hasOwn(FUNCTIONS, token)) {
      const f = FUNCTIONS[token];
      if (next() !== '(') throw new FormulaError(`"${token}" needs a "("`);
      const inner = bracket();
      return (v) => f(inner(v));
    }
    throw new FormulaError(`unexpected "${token}"; known: ${[...names, 'pi', ...Object.keys(FUNCTIONS)].join(', ')}`);
  }

  const formula = sum();
  if (at < tokens.length) throw new FormulaError(`unexpected "${tokens[at]}"`);
  return formula;
}
