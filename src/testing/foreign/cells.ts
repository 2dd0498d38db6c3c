import type { Random } from "./random";

// What cells of tables look like that nobody made for this application, column by column.

/** Writes the cell of a row. */
export type Cells = (row: number) => string;

const SYLLABLES = ["ka", "lo", "mir", "ten", "vas", "or", "ul", "be", "shi", "dra", "no", "pel"];
const word = (random: Random) => {
  const made = Array.from({ length: random.int(1, 3) }, () => random.pick(SYLLABLES)).join("");
  return made[0].toUpperCase() + made.slice(1);
};
const EMPTY = ["", "", "-", "NA", "n/a", "None", "null", "?", "."];
const ODD_NAMES = [
  "constructor",
  "__proto__",
  "{value}",
  "<b>bold</b>",
  "=1+1",
  "北の桟橋",
  "רציף",
  "a…b",
  "50%",
];

/** A number as one of the notations of the world writes it. */
function notation(random: Random): (n: number) => string {
  const decimals = random.int(0, 3);
  const [group, mark] = random.pick([
    ["", "."],
    [",", "."],
    [".", ","],
    ["\u00a0", ","],
    ["’", "."],
    [" ", ","],
  ] as const);
  return (n) => {
    const [whole, rest] = Math.abs(n).toFixed(decimals).split(".");
    const grouped = whole.replaceAll(/\B(?=(\d{3})+(?!\d))/g, group);
    return (n < 0 ? "-" : "") + grouped + (rest ? mark + rest : "");
  };
}

/** Numbers of one size, with units, currencies or brackets around them where a report would have them. */
export function numbers(random: Random): Cells {
  const write = notation(random);
  const size = 10 ** random.int(-2, 6);
  const form = random.pick([
    (n: number) => write(n),
    (n: number) => write(n),
    (n: number) => `${write(n)} kg`,
    (n: number) => `$${write(n)}`,
    (n: number) => `${write(n)} €`,
    (n: number) => (n < 0 ? `(${write(-n)})` : write(n)),
    (n: number) => ` ${write(n)} `,
  ]);
  const canFall = random.chance(0.25);
  const holes = random.chance(0.4) ? random.next() * 0.3 : 0;
  const isFlat = random.chance(0.1);
  return () => {
    if (random.chance(holes)) return random.pick(EMPTY);
    const n = isFlat ? size : size * Math.exp(random.next() * 3 - 1.5);
    return form(canFall && random.chance(0.3) ? -n : n);
  };
}

/** Rates: shares under one, or percents with their sign or without. */
export function rates(random: Random): Cells {
  const write = notation(random);
  const form = random.pick([
    (n: number) => n.toFixed(2),
    (n: number) => `${write(n * 100)} %`,
    (n: number) => `${(n * 100).toFixed(1)}%`,
    (n: number) => (n * 100).toFixed(0),
  ]);
  const [low, span] = [random.next() * 0.6, random.next() * 0.4];
  return () => (random.chance(0.05) ? random.pick(EMPTY) : form(low + random.next() * span));
}

/** Whole numbers that count. */
export const counts = (random: Random): Cells => {
  const most = 10 ** random.int(0, 4);
  return () => String(random.int(0, most));
};

/** Names, a few large ones and many small, some of them empty or in words for that, some written two ways. */
export function categories(random: Random): Cells {
  const many = random.pick([2, 3, 5, 8, 14, 40]);
  const names = Array.from({ length: many }, (_, i) =>
    random.chance(0.05) ? random.pick(ODD_NAMES) : `${word(random)} ${random.chance(0.2) ? i : word(random)}`,
  );
  const holes = random.chance(0.4) ? random.next() * 0.4 : 0;
  const isSloppy = random.chance(0.3);
  return () => {
    if (random.chance(holes)) return random.pick(EMPTY);
    const name = names[Math.floor(random.next() ** 2 * many)];
    if (!isSloppy || random.chance(0.8)) return name;
    return random.pick([name.toUpperCase(), `${name} `, name.toLowerCase()]);
  };
}

/** Ids: running, with leading zeros, or with letters. */
export function ids(random: Random): Cells {
  const start = random.int(1, 99_999);
  return random.pick<Cells>([
    (row) => String(start + row),
    (row) => String(row).padStart(6, "0"),
    (row) => `A-${1000 + row}`,
  ]);
}

const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");
const two = (n: number) => String(n).padStart(2, "0");

/** Days in one way to write them, and some that are none. */
export function dates(random: Random): Cells {
  const first = Date.UTC(random.int(2015, 2025), random.int(0, 11), random.int(1, 28));
  const span = random.pick([20, 300, 1500]);
  const form = random.pick([
    (d: Date) => d.toISOString().slice(0, 10),
    (d: Date) => `${two(d.getUTCDate())}.${two(d.getUTCMonth() + 1)}.${d.getUTCFullYear()}`,
    (d: Date) => `${d.getUTCMonth() + 1}/${d.getUTCDate()}/${d.getUTCFullYear()}`,
    (d: Date) => `${d.getUTCDate()} ${MONTHS[d.getUTCMonth()]} ${d.getUTCFullYear()}`,
    (d: Date) => `${d.toISOString().slice(0, 10)} ${two(d.getUTCHours())}:${two(d.getUTCMinutes())}`,
    (d: Date) => d.toISOString(),
    (d: Date) => d.toISOString().slice(0, 7),
    (d: Date) => `${MONTHS[d.getUTCMonth()]} ${d.getUTCFullYear()}`,
    (d: Date) => `${d.getUTCFullYear()}`,
  ]);
  const isOdd = random.chance(0.2);
  return () => {
    if (isOdd && random.chance(0.05)) return random.pick(["soon", "31.02.2024", "", "tbd"]);
    return form(new Date(first + Math.floor(random.next() * span * 86_400_000)));
  };
}

/** True and false in one of their words. */
export function truths(random: Random): Cells {
  const [yes, no] = random.pick([
    ["yes", "no"],
    ["true", "false"],
    ["Y", "N"],
    ["1", "0"],
    ["x", ""],
  ]);
  const share = random.next();
  return () => (random.chance(share) ? yes : no);
}

/** Answers of a survey: a scale, as numbers or with words. */
export function answers(random: Random): Cells {
  const words = ["1 = poor", "2", "3", "4", "5 = very good"];
  const isWorded = random.chance(0.4);
  return () => {
    const n = random.int(1, 5);
    return random.chance(0.1) ? random.pick(EMPTY) : isWorded ? words[n - 1] : String(n);
  };
}
