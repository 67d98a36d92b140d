/**
 * Solve a small dense system A·X = B by elimination with pivoting.
 *
 * @param a n × n. @param b n × m.
 * @returns X (n × m), or undefined when A is singular.
 */
export function solveLinear(a: readonly (readonly number[])[], b: readonly (readonly number[])[]): number[][] | undefined {
  const n = a.length;
  const m = b[0].length;
  const rows = a.map((row, i) => [...row, ...b[i]]);
  const scale = Math.max(...rows.flatMap((row) => row.slice(0, n).map(Math.abs)));
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let r = column + 1; r < n; r++) if (Math.abs(rows[r][column]) > Math.abs(rows[pivot][column])) pivot = r;
    if (!(Math.abs(rows[pivot][column]) > 1e-12 * scale)) return undefined;
    [rows[column], rows[pivot]] = [rows[pivot], rows[column]];
    for (let r = 0; r < n; r++) {
      if (r === column) continue;
      const factor = rows[r][column] / rows[column][column];
      for (let c = column; c < n + m; c++) rows[r][c] -= factor * rows[column][c];
    }
  }
  return rows.map((row, i) => row.slice(n).map((value) => value / row[i]));
}

/**
 * Weights of a linear least-squares fit: row k gives parameter k as `Σ wₖᵢ·yᵢ`.
 *
 * @param design one row of basis values for each observation.
 * @returns parameters × observations, or undefined when the observations do not fix the parameters.
 */
export function leastSquaresWeights(design: readonly (readonly number[])[]): number[][] | undefined {
  const parameters = design[0]?.length ?? 0;
  if (design.length < parameters) return undefined;
  const normal = Array.from({ length: parameters }, (_, i) =>
    Array.from({ length: parameters }, (_, j) => design.reduce((sum, row) => sum + row[i] * row[j], 0)),
  );
  const right = Array.from({ length: parameters }, (_, i) => design.map((row) => row[i]));
  return solveLinear(normal, right);
}
