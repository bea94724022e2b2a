/**
 * The inverse of a small symmetric positive definite matrix, by Cholesky's factors.
 *
 * @param a n × n, row by row; only the lower half is read
 * @returns undefined where it is not positive definite, not of finite numbers, or over 64 rows
 */
export function inverseSpd(a: ReadonlyArray<ReadonlyArray<number>>): number[][] | undefined {
  const n = a.length;
  if (n > MOST_ROWS) return undefined;
  const at = (m: ReadonlyArray<ReadonlyArray<number>>, i: number, j: number) => m[i]?.[j] ?? 0;
  const l = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = at(a, i, j);
      for (let k = 0; k < j; k++) sum -= at(l, i, k) * at(l, j, k);
      if (i === j && !(sum > 0 && Number.isFinite(sum))) return undefined;
      (l[i] as number[])[j] = i === j ? Math.sqrt(sum) : sum / at(l, j, j);
    }
  // Columns of the inverse: L y = e, Lᵀ x = y.
  const inverse = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let column = 0; column < n; column++) {
    const x = new Array<number>(n).fill(0);
    for (let i = column; i < n; i++) {
      let sum = i === column ? 1 : 0;
      for (let k = column; k < i; k++) sum -= at(l, i, k) * (x[k] ?? 0);
      x[i] = sum / at(l, i, i);
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = x[i] ?? 0;
      for (let k = i + 1; k < n; k++) sum -= at(l, k, i) * (x[k] ?? 0);
      x[i] = sum / at(l, i, i);
      (inverse[i] as number[])[column] = x[i] ?? 0;
    }
  }
  return inverse.every((row) => row.every(Number.isFinite)) ? inverse : undefined;
}

/** Its time grows with the cube. */
const MOST_ROWS = 64;
