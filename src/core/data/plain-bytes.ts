/**
 * Plain data (objects, lists, maps, texts, numbers, typed arrays) as bytes: a length, JSON in which an array
 * stands as its place, and the arrays. Arrays of whole numbers are written as narrow as they or their
 * differences are, so that sums over the first cells and ascending codes take little.
 */
const ARRAYS = {
  Int8Array,
  Int16Array,
  Int32Array,
  Uint8Array,
  Uint16Array,
  Uint32Array,
  Float64Array,
} as const;
type ArrayName = keyof typeof ARRAYS;
type AnyArray = InstanceType<(typeof ARRAYS)[ArrayName]>;

/** How an array stands in the bytes. */
interface Packed {
  /** What it is, and as what it is written. */
  of: ArrayName;
  as: ArrayName;
  /** Whether each entry is the difference to the one before. */
  differences: boolean;
  length: number;
}

const ARRAY = "\u0000array";
const MAP = "\u0000map";
const NARROW = [
  { as: "Int8Array", most: 2 ** 7 - 1 },
  { as: "Int16Array", most: 2 ** 15 - 1 },
  { as: "Int32Array", most: 2 ** 31 - 1 },
] as const;

/** The largest size among entries and among their differences; infinite where one is not whole, or is -0. */
function sizesOf(array: AnyArray): { plain: number; differences: number } {
  let [plain, differences, before] = [0, 0, 0];
  for (let i = 0; i < array.length; i++) {
    const x = array[i];
    if (!Number.isSafeInteger(x) || Object.is(x, -0))
      return { plain: Number.POSITIVE_INFINITY, differences: Number.POSITIVE_INFINITY };
    plain = Math.max(plain, Math.abs(x));
    differences = Math.max(differences, Math.abs(x - before));
    before = x;
  }
  return { plain, differences };
}

function packed(array: AnyArray): { how: Packed; bytes: Uint8Array } {
  const of = array.constructor.name as ArrayName;
  const sizes = sizesOf(array);
  const width = (most: number) => NARROW.findIndex((n) => most <= n.most);
  const [plain, differences] = [width(sizes.plain), width(sizes.differences)];
  const byDifferences = differences >= 0 && (plain < 0 || differences < plain);
  const at = byDifferences ? differences : plain;
  const as = at >= 0 && of !== "Uint32Array" ? NARROW[at].as : of;
  const written = new ARRAYS[as](array.length);
  for (let i = 0; i < array.length; i++)
    written[i] = byDifferences && as !== of ? array[i] - (i > 0 ? array[i - 1] : 0) : array[i];
  const how = { of, as, differences: byDifferences && as !== of, length: array.length };
  return { how, bytes: new Uint8Array(written.buffer) };
}

function unpacked({ of, as, differences, length }: Packed, bytes: Uint8Array): AnyArray {
  // Copied, since an array may begin at no multiple of its width.
  const written = new ARRAYS[as](bytes.slice().buffer);
  const array = new ARRAYS[of](length);
  let sum = 0;
  for (let i = 0; i < length; i++) {
    sum = differences ? sum + written[i] : written[i];
    array[i] = sum;
  }
  return array;
}

const ENDIAN = new Uint8Array(new Uint16Array([1]).buffer)[0];

/** Plain data as bytes (see above). What stands in it twice is written twice. */
export function toBytes(value: unknown): Uint8Array {
  const arrays: { how: Packed; bytes: Uint8Array }[] = [];
  const told = (v: unknown): unknown => {
    if (ArrayBuffer.isView(v)) return { [ARRAY]: arrays.push(packed(v as AnyArray)) - 1 };
    if (v instanceof Map) return { [MAP]: [...v].map(([k, inner]) => [told(k), told(inner)]) };
    if (Array.isArray(v)) return Array.from(v, told);
    if (typeof v !== "object" || v === null) return v;
    return Object.fromEntries(Object.entries(v).map(([k, inner]) => [k, told(inner)]));
  };
  const json = { value: told(value), arrays: arrays.map((a) => a.how) };
  const text = new TextEncoder().encode(JSON.stringify(json));
  const bytes = new Uint8Array(5 + text.length + arrays.reduce((sum, a) => sum + a.bytes.length, 0));
  bytes[0] = ENDIAN;
  new DataView(bytes.buffer).setUint32(1, text.length);
  bytes.set(text, 5);
  let at = 5 + text.length;
  for (const a of arrays) {
    bytes.set(a.bytes, at);
    at += a.bytes.length;
  }
  return bytes;
}

/** The plain data that bytes of `toBytes` hold. Throws an Error where they are of another kind of machine. */
export function fromBytes(bytes: Uint8Array): unknown {
  if (bytes[0] !== ENDIAN) throw new Error("These bytes were written in another byte order.");
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(1);
  const json = JSON.parse(new TextDecoder().decode(bytes.subarray(5, 5 + length))) as {
    value: unknown;
    arrays: Packed[];
  };
  let at = 5 + length;
  const arrays = json.arrays.map((how) => {
    const size = how.length * ARRAYS[how.as].BYTES_PER_ELEMENT;
    at += size;
    return unpacked(how, bytes.subarray(at - size, at));
  });
  const meant = (v: unknown): unknown => {
    if (Array.isArray(v)) return v.map(meant);
    if (typeof v !== "object" || v === null) return v;
    if (Object.hasOwn(v, ARRAY)) return arrays[(v as Record<string, number>)[ARRAY]];
    if (Object.hasOwn(v, MAP)) {
      const entries = (v as Record<string, [unknown, unknown][]>)[MAP];
      return new Map(entries.map(([k, inner]) => [meant(k), meant(inner)]));
    }
    return Object.fromEntries(Object.entries(v).map(([k, inner]) => [k, meant(inner)]));
  };
  return meant(json.value);
}
