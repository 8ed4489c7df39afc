/**
 * A second, independent reading of the formulas that workings show: a small evaluator for numbers, + − · / ( ) √ min max.
 * It lets a test hold the arithmetic on the screen against the number beside it.
 */
export function evaluate(formula: string): number {
  const tokens = formula.match(/\d+(?:\.\d+)?(?:e[+-]?\d+)?|min|max|[-+−·/(),√]/gu) ?? [];
  let at = 0;
  const next = (): string => tokens[at++] ?? '';
  const expect = (wanted: string): void => {
    const found = next();
    if (found !== wanted) throw new Error(`"${wanted}" expected, but found "${found}" in: ${formula}`);
  };
  const atom = (): number => {
    const token = next();
    if (token === '√') return Math.sqrt(atom());
    if (token === '−' || token === '-') return -atom();
    if (token === '(') {
      const value = sum();
      expect(')');
      return value;
    }
    if (token === 'min' || token === 'max') {
      expect('(');
      const a = sum();
      expect(',');
      const b = sum();
      expect(')');
      return token === 'min' ? Math.min(a, b) : Math.max(a, b);
    }
    const value = Number(token);
    if (token === '' || Number.isNaN(value))
      throw new Error(`A number was expected, but found "${token}" in: ${formula}`);
    return value;
  };
  const product = (): number => {
    let value = atom();
    while (tokens[at] === '·' || tokens[at] === '/') value = next() === '·' ? value * atom() : value / atom();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (['+', '−', '-'].includes(tokens[at] ?? ''))
      value = next() === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  if (at !== tokens.length) throw new Error(`Left over: ${tokens.slice(at).join(' ')} in: ${formula}`);
  return value;
}
