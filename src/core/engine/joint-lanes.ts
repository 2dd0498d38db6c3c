import type { Block } from "./block";
import { clearTotals, type Lanes, type Shelf } from "./lanes";
import { BLOCK, type Loops } from "./loops/loops";

/** One grouping of a selection: its lanes, and the group of each row of a block, all below `size`. */
export interface Side {
  lanes: Lanes;
  groups: Int32Array;
  readonly size: number;
}

/** Groupings of the same lanes, folded once for all combinations of their groups. */
interface Team {
  shelf: Shelf;
  sides: Side[];
  /** For how many groups of each side there is room. */
  rooms: number[];
  totals: Float64Array;
}

/** So many combinations stay near the processor, and are put together in less time than a block takes. */
const MOST = 2048;

const roomFor = (size: number) => 2 ** Math.ceil(Math.log2(size));
const product = (rooms: number[]) => rooms.reduce((all, room) => all * room, 1);

/**
 * Folds the lanes of all groupings of a selection. Those that gather the same and have few groups are folded
 * together, each row once, and put together from their combinations afterwards: lanes come out the same to
 * the last bit however rows are added up.
 */
export class JointLanes {
  private teams: Team[] = [];
  private alone: Side[] = [];
  /** For how many groups of each side the teams were made. */
  private rooms: number[] = [];
  private readonly places: Int32Array;

  constructor(
    private readonly sides: Side[],
    private readonly loops: Loops,
  ) {
    this.places = loops.ints(BLOCK);
  }

  /** Takes the rows of a block, to which every side has given its groups. */
  add(block: Block): void {
    // At first there is room for none.
    if (this.sides.some(({ size }, i) => size > (this.rooms[i] ?? 0))) {
      this.settle();
      this.arrange();
    }
    for (const { lanes, groups, size } of this.alone) lanes.add(block, groups, size);
    for (const { shelf, sides, rooms, totals } of this.teams) {
      const [first, ...others] = sides;
      this.places.set(first.groups);
      for (const [i, { groups }] of others.entries())
        this.loops.numberPairs(this.places, rooms[i + 1], groups, block.length);
      this.loops.foldLanes(totals, this.places, shelf.filled(block), block.length);
    }
  }

  /** Gives what was folded together to each side. */
  settle(): void {
    for (const { sides, rooms, totals } of this.teams) {
      const groupOf = new Int32Array(product(rooms));
      let step = groupOf.length;
      for (const [i, { lanes }] of sides.entries()) {
        step /= rooms[i];
        // Rooms are powers of two.
        const shift = Math.log2(step);
        const within = rooms[i] - 1;
        for (let place = 0; place < groupOf.length; place++) groupOf[place] = (place >>> shift) & within;
        lanes.addFolded(totals, groupOf, rooms[i]);
      }
    }
    this.teams = [];
    this.rooms = [];
  }

  /** Puts sides together, the smallest first, as long as their combinations are few. */
  private arrange(): void {
    this.rooms = this.sides.map(({ size }) => roomFor(size));
    const teams: Omit<Team, "totals">[] = [];
    const alone: Side[] = [];
    for (const side of [...this.sides].sort((a, b) => a.size - b.size)) {
      const shelf = side.lanes.onlyShelf;
      const room = roomFor(side.size);
      const team = teams.find((t) => t.shelf === shelf && product(t.rooms) * room <= MOST);
      if (team) {
        team.sides.push(side);
        team.rooms.push(room);
      } else if (shelf) teams.push({ shelf, sides: [side], rooms: [room] });
      else alone.push(side);
    }
    this.alone = [...alone, ...teams.filter((t) => t.sides.length === 1).flatMap((t) => t.sides)];
    this.teams = teams
      .filter((t) => t.sides.length > 1)
      .map((team) => {
        const totals = this.loops.doubles(product(team.rooms) * team.shelf.width);
        clearTotals(totals, team.shelf);
        return { ...team, totals };
      });
  }
}
