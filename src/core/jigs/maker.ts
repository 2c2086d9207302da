/**
 * What all jigs build with: coordinates as terms (numbers or formulas), and the records that they gather
 * into one insertion. Everything that comes out is ordinary geometry.
 */
import {
  buttEnd,
  type EdgingChoice,
  type EndCut,
  type Groove,
  type Home,
  type InsertEdit,
  type Job,
  type Line,
  type Member,
  minus,
  mitreEnd,
  type NewId,
  newInsert,
  newMember,
  newPanel,
  newPoint,
  type Panel,
  type Point,
  plus,
  type Term,
  termOf,
  textOf,
  times,
} from "../job";
import { fromNm, toNm } from "../kernel";
import { type LengthUnit, MM_PER_UNIT } from "../measure";
import { type Stockroom, sectionProperties } from "../stockroom";

export type Place = readonly [Term, Term, Term];

/** Sizes of a section or board in the job's unit. */
export class JigMaker {
  private readonly points: Point[] = [];
  private readonly lines: Line[] = [];
  private readonly members: Member[] = [];
  private readonly panels: Panel[] = [];
  private readonly places = new Map<string, Point>();
  private readonly job: Job;
  private readonly stockroom: Stockroom;
  private readonly newId: NewId;
  private readonly origin: Place;
  readonly unit: LengthUnit;

  private readonly home: Home;

  constructor(
    job: Job,
    stockroom: Stockroom,
    origin: readonly [string, string, string],
    newId: NewId,
    home: Home = null,
  ) {
    this.home = home;
    this.job = job;
    this.stockroom = stockroom;
    this.newId = newId;
    this.unit = job.info.job.unit;
    this.origin = [termOf(origin[0], this.unit), termOf(origin[1], this.unit), termOf(origin[2], this.unit)];
  }

  term(text: string): Term {
    return termOf(text, this.unit);
  }

  private inUnit(mm: number): number {
    return fromNm(toNm(mm)) / MM_PER_UNIT[this.unit];
  }

  /** Width and height of a section; zero for none. */
  section(id: string): readonly [number, number] {
    const entry = this.stockroom.sectionById.get(id);
    if (!entry) return [0, 0];
    const [x, y] = sectionProperties(entry.shape).extent;
    return [this.inUnit(x), this.inUnit(y)];
  }

  /** Thickness of a board; zero for none. */
  board(id: string): number {
    const entry = this.stockroom.boardById.get(id);
    return entry ? this.inUnit(entry.thickness) : 0;
  }

  private texts(place: Place): [string, string, string] {
    const part = (i: 0 | 1 | 2) => textOf(plus(this.origin[i], place[i]));
    return [part(0), part(1), part(2)];
  }

  /** The point at a place: one for each place, however often it is asked for. */
  private point(place: Place): Point {
    const at = this.texts(place);
    const key = at.join(";");
    const known = this.places.get(key);
    if (known) return known;
    const there = Object.values(this.job.points).find(
      (point) => point.assembly === this.home && point.at.join(";") === key,
    );
    const point = there ?? newPoint(this.newId("point"), this.newId("pointName"), at, this.home);
    this.places.set(key, point);
    if (!there) this.points.push(point);
    return point;
  }

  /** Ids are given out first, so that members can be cut against one another. */
  memberId(): string {
    return this.newId("member");
  }

  member(
    id: string,
    name: string,
    section: string,
    from: Place,
    to: Place,
    cuts: { readonly start?: EndCut; readonly end?: EndCut; readonly roll?: string } = {},
  ): void {
    const line: Line = {
      id: this.newId("line") as Line["id"],
      from: this.point(from).id,
      to: this.point(to).id,
    };
    this.lines.push(line);
    this.members.push(
      newMember(id, line.id, { name, from: "", to: "", section: section === "" ? null : section, ...cuts }),
    );
  }

  /** Members round a closed run of places, each mitred with the next. */
  mitredRing(
    names: readonly string[],
    section: string,
    places: readonly Place[],
    rolls: readonly string[] = [],
  ): readonly string[] {
    const ids = places.map(() => this.memberId());
    places.forEach((from, i) => {
      const [before, next] = [
        ids[(i + places.length - 1) % places.length] ?? "",
        ids[(i + 1) % places.length] ?? "",
      ];
      this.member(ids[i] ?? "", names[i] ?? "", section, from, places[(i + 1) % places.length] ?? from, {
        start: mitreEnd(before),
        end: mitreEnd(next),
        ...(rolls[i] ? { roll: rolls[i] } : {}),
      });
    });
    return ids;
  }

  panel(
    name: string,
    board: string,
    parts: {
      readonly origin: Place;
      readonly length: Term;
      readonly width: Term;
      readonly lengthAxis: readonly [string, string, string];
      readonly faceAxis: readonly [string, string, string];
      readonly edging?: Partial<EdgingChoice>;
      readonly work?: readonly Groove[];
    },
  ): void {
    const { origin, length, width, ...rest } = parts;
    this.panels.push(
      newPanel(this.newId("panel"), {
        ...rest,
        name,
        assembly: this.home,
        board: board === "" ? null : board,
        origin: this.texts(origin),
        length: textOf(length),
        width: textOf(width),
      }),
    );
  }

  groove(face: Groove["face"], from: Groove["from"], distance: Term, width: Term, depth: Term): Groove {
    return {
      id: this.newId("groove"),
      kind: "groove",
      face,
      from,
      distance: textOf(distance),
      width: textOf(width),
      depth: textOf(depth),
      stopAtStart: "0",
      stopAtEnd: "0",
    };
  }

  done(what: string): InsertEdit {
    const { points, lines, members, panels } = this;
    return newInsert(what, { points, lines, members, panels });
  }
}

export const sum = (...terms: readonly Term[]): Term => terms.reduce(plus, 0);
export { buttEnd, minus, plus, type Term, textOf, times };
