const SAMPLED = 600;

/**
 * Puts the k-th smallest of `values[from .. to]` at place k, smaller ones before it and larger ones after (R.
 * W. Floyd, R. L. Rivest, Algorithm 489: SELECT, CACM 18, 1975). Where it makes no headway, the rest is
 * sorted.
 */
export function selectNth(
  values: Float64Array,
  from: number,
  to: number,
  k: number,
  patience = { left: 4 * Math.ceil(Math.log2(to - from + 2)) + 16 },
): void {
  let [left, right] = [from, to];
  while (right > left) {
    if (patience.left-- === 0) {
      values.subarray(left, right + 1).sort();
      return;
    }
    if (right - left > SAMPLED) {
      // The k-th of a sample bounds the k-th of all closely.
      const n = right - left + 1;
      const i = k - left + 1;
      const z = Math.log(n);
      const s = 0.5 * Math.exp((2 * z) / 3);
      const sd = 0.5 * Math.sqrt((z * s * (n - s)) / n) * Math.sign(i - n / 2);
      selectNth(
        values,
        Math.max(left, Math.floor(k - (i * s) / n + sd)),
        Math.min(right, Math.floor(k + ((n - i) * s) / n + sd)),
        k,
        patience,
      );
    }
    const pivot = values[k];
    let [i, j] = [left, right];
    values[k] = values[left];
    values[left] = pivot;
    if (values[right] > pivot) {
      values[left] = values[right];
      values[right] = pivot;
    }
    while (i < j) {
      const x = values[i];
      values[i++] = values[j];
      values[j--] = x;
      while (values[i] < pivot) i++;
      while (values[j] > pivot) j--;
    }
    if (values[left] === pivot) {
      const x = values[left];
      values[left] = values[j];
      values[j] = x;
    } else {
      j++;
      const x = values[j];
      values[j] = values[right];
      values[right] = x;
    }
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
  }
}
