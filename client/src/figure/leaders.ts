/** A place on the picture, px. */
export interface At {
  x: number;
  y: number;
}

/**
 * Gives each row a column of its own so that the costs together are least: the assignment problem, solved exactly by shortest
 * augmenting paths (Kuhn 1955, Munkres 1957, in the form with potentials; from memory).
 *
 * @param cost as many columns as rows, or more
 * @returns the column of each row
 */
export function cheapest(cost: readonly (readonly number[])[]): number[] {
  const rows = cost.length;
  const columns = cost[0]?.length ?? 0;
  // Counted from one; column 0 stands for the row that is being placed.
  const rowPrice = Array<number>(rows + 1).fill(0);
  const columnPrice = Array<number>(columns + 1).fill(0);
  const takenBy = Array<number>(columns + 1).fill(0);
  for (let row = 1; row <= rows; row++) {
    takenBy[0] = row;
    const least = Array<number>(columns + 1).fill(Infinity);
    const from = Array<number>(columns + 1).fill(0);
    const seen = Array<boolean>(columns + 1).fill(false);
    let column = 0;
    do {
      seen[column] = true;
      const here = takenBy[column]!;
      let step = Infinity;
      let next = 0;
      for (let c = 1; c <= columns; c++) {
        if (seen[c]) continue;
        const reduced = cost[here - 1]![c - 1]! - rowPrice[here]! - columnPrice[c]!;
        if (reduced < least[c]!) {
          least[c] = reduced;
          from[c] = column;
        }
        if (least[c]! < step) {
          step = least[c]!;
          next = c;
        }
      }
      for (let c = 0; c <= columns; c++) {
        if (seen[c]) {
          rowPrice[takenBy[c]!]! += step;
          columnPrice[c]! -= step;
        } else least[c]! -= step;
      }
      column = next;
    } while (takenBy[column] !== 0);
    while (column !== 0) {
      takenBy[column] = takenBy[from[column]!]!;
      column = from[column]!;
    }
  }
  const columnOf = Array<number>(rows).fill(-1);
  for (let c = 1; c <= columns; c++) if (takenBy[c]! > 0) columnOf[takenBy[c]! - 1] = c - 1;
  return columnOf;
}

/**
 * Which port each mark is joined to, so that the straight lines together are shortest. Two lines that crossed could be swapped
 * for two shorter ones; so none cross.
 */
export const shortestLines = (marks: readonly At[], ports: readonly At[]) =>
  cheapest(marks.map((mark) => ports.map((port) => Math.hypot(port.x - mark.x, port.y - mark.y))));
