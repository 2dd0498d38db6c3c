// The group of each row; where one is not known yet, -1 or a complement stands, and the return is below zero.

/** `at` zero stands for all places, here and below. */
export function groupCodes(codes: usize, groupOfCode: usize, at: usize, length: i32, groups: usize): i32 {
  let all = 0;
  for (let i: usize = 0, end = <usize>length << 2; i < end; i += 4) {
    const code = at == 0 ? load<i32>(codes + i) : load<i32>(codes + (<usize>load<i32>(at + i) << 2));
    const group = load<i32>(groupOfCode + (<usize>(code + 1) << 2));
    store<i32>(groups + i, group);
    all |= group;
  }
  return all;
}

export function groupNear(
  values: usize,
  low: f64,
  table: usize,
  span: i32,
  at: usize,
  length: i32,
  groups: usize,
): i32 {
  let all = 0;
  for (let i = 0; i < length; i++) {
    const place = at == 0 ? i : load<i32>(at + (<usize>i << 2));
    const distance = load<f64>(values + (<usize>place << 3)) - low;
    const isNear = i32(distance >= 0) & i32(distance < <f64>span);
    const found = load<i32>(table + (isNear ? <usize>(<i32>distance) << 2 : 0));
    const group = isNear ? found : -1;
    store<i32>(groups + (<usize>i << 2), group);
    all |= group;
  }
  return all;
}

export function groupPairs(pairs: usize, width: i32, second: usize, length: i32, groups: usize): i32 {
  let all = 0;
  for (let i: usize = 0, end = <usize>length << 2; i < end; i += 4) {
    const first = load<i32>(groups + i);
    const group = load<i32>(pairs + (<usize>(first * width + load<i32>(second + i)) << 2));
    store<i32>(groups + i, group < 0 ? ~first : group);
    all |= group;
  }
  return all;
}
