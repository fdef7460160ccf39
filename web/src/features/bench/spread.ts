/**
 * Places at least `clear` apart, in order, as near as can be to the wanted ones (ascending), within low and high.
 * When they cannot all fit they start at `low`.
 */
export function spread(wanted: number[], clear: number, low: number, high: number): number[] {
  const last = wanted.length - 1;
  const blocks: { mean: number; count: number }[] = [];
  wanted.forEach((value, index) => {
    const kept = Math.min(Math.max(value, low + index * clear), high - (last - index) * clear);
    let block = { mean: Math.max(kept, low + index * clear) - index * clear, count: 1 };
    for (let before = blocks.at(-1); before && before.mean > block.mean; before = blocks.at(-1)) {
      blocks.pop();
      const count = before.count + block.count;
      block = { mean: (before.mean * before.count + block.mean * block.count) / count, count };
    }
    blocks.push(block);
  });
  return blocks
    .flatMap(({ mean, count }) => Array<number>(count).fill(mean))
    .map((mean, index) => mean + index * clear);
}
