/**
 * The first place in a list, or in so many of it, at which nothing stands that comes before something; `order` compares what
 * stands there with it.
 */
export function firstNotBefore<T>(
  list: ArrayLike<T>,
  order: (one: T) => number,
  length = list.length,
): number {
  let [from, to] = [0, length];
  while (from < to) {
    const middle = (from + to) >>> 1;
    if (order(list[middle] as T) < 0) from = middle + 1;
    else to = middle;
  }
  return from;
}
