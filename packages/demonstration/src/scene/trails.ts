import type { Range } from '@yperkine/core';
import { kindOf } from '../schema/anyKind.ts';
import type { Spot } from '../entries/kind.ts';
import type { Resolution } from '../resolve/resolution.ts';
import type { EntryOf, Id } from '../schema/document.ts';

/** The windows in which a distance is judged. */
export interface Windows {
  readonly x: Range;
  y(tier: Id): Range;
}

/** The marks that one point has left: a ring of places, so that its size is bounded however long it moves. */
export class Trail {
  private xs = new Float64Array(0);
  private ys = new Float64Array(0);
  private next = 0;
  private count = 0;

  constructor(readonly tier: Id) {}

  get length(): number {
    return this.count;
  }

  /** Room for so many places; the newest of those that are there are kept. */
  limitTo(limit: number): void {
    if (this.xs.length === limit) return;
    const kept = this.places().slice(-limit);
    this.xs = new Float64Array(limit);
    this.ys = new Float64Array(limit);
    this.next = this.count = 0;
    for (const [x, y] of kept) this.push(x, y);
  }

  /** Adds a place; NaN for a break between two places that are not joined. */
  push(x: number, y: number): void {
    this.xs[this.next] = x;
    this.ys[this.next] = y;
    this.next = (this.next + 1) % this.xs.length;
    this.count = Math.min(this.count + 1, this.xs.length);
  }

  /** The places from the oldest to the newest. */
  places(): [number, number][] {
    const first = this.next - this.count + this.xs.length;
    return Array.from({ length: this.count }, (_, i) => {
      const index = (first + i) % this.xs.length;
      return [this.xs[index] as number, this.ys[index] as number];
    });
  }

  last(): [number, number] | undefined {
    const index = (this.next - 1 + this.xs.length) % this.xs.length;
    return this.count === 0 ? undefined : [this.xs[index] as number, this.ys[index] as number];
  }
}

/** Shares of the window by which a point has moved before it leaves another mark, and at which it has jumped. */
const spacing = { dots: 1 / 150, line: 1 / 600 } as const;
const jump = 0.35;

/** The trails of a demonstration while it is shown. */
export class Trails {
  private readonly byEntry = new Map<Id, Trail>();
  /** Where each point was when it was last seen: a point that only stands leaves no marks. */
  private readonly seen = new Map<Id, readonly [number, number] | null>();
  /** Changes whenever a mark comes or goes. */
  version = 0;

  of(id: Id): Trail | undefined {
    return this.byEntry.get(id);
  }

  /** Takes the pen off: what comes next is not joined to what is there. */
  lift(): void {
    for (const trail of this.byEntry.values()) {
      if (!isBreak(trail.last())) trail.push(NaN, NaN);
    }
    this.seen.clear();
  }

  clear(): void {
    if ([...this.byEntry.values()].some(({ length }) => length > 0)) this.version++;
    this.byEntry.clear();
    this.seen.clear();
  }

  /** Lets every point that is shown and has moved leave its mark. */
  record(resolution: Resolution, windows: Windows): void {
    for (const { id, entry, outcome } of resolution.entries.values()) {
      if (entry.kind === 'trail' && outcome.ok) this.recordOne(id, entry, resolution, windows);
    }
    for (const id of [...this.byEntry.keys()]) {
      if (resolution.entries.has(id)) continue;
      this.byEntry.delete(id);
      this.seen.delete(id);
      this.version++;
    }
  }

  private recordOne(id: Id, entry: EntryOf<'trail'>, resolution: Resolution, windows: Windows): void {
    const place = placeOf(entry, resolution);
    if (!place) {
      this.seen.set(id, null);
      return;
    }
    const before = this.seen.get(id);
    if (before?.[0] === place.x && before[1] === place.y) return;
    // The first place is only where it stands; the second one shows that it moves, and both are marked.
    this.seen.set(id, [place.x, place.y]);
    const trail = this.trailIn(id, place.tier);
    trail.limitTo(entry.limit);
    if (before === undefined) return;
    if (before === null) this.leave(trail, [NaN, NaN], entry.drawn, windows);
    else if (isBreak(trail.last())) this.leave(trail, before, entry.drawn, windows);
    this.leave(trail, [place.x, place.y], entry.drawn, windows);
  }

  private trailIn(id: Id, tier: Id): Trail {
    const known = this.byEntry.get(id);
    if (known?.tier === tier) return known;
    const trail = new Trail(tier);
    this.byEntry.set(id, trail);
    return trail;
  }

  private leave(
    trail: Trail,
    [x, y]: readonly [number, number],
    drawn: keyof typeof spacing,
    windows: Windows,
  ): void {
    const last = trail.last();
    if (Number.isNaN(x) && isBreak(last)) return;
    if (last && !Number.isNaN(x) && !isBreak(last)) {
      const [width, height] = [widthOf(windows.x), widthOf(windows.y(trail.tier))];
      const [across, up] = [Math.abs(x - last[0]) / width, Math.abs(y - last[1]) / height];
      if (Math.hypot(across, up) < spacing[drawn]) return;
      if (Math.max(across, up) > jump) trail.push(NaN, NaN);
    }
    trail.push(x, y);
    this.version++;
  }
}

/** Whether a trail begins anew behind its last place. */
const isBreak = (last: readonly [number, number] | undefined): boolean => !last || Number.isNaN(last[0]);

const widthOf = ({ from, to }: Range): number => to - from;

/** Where the point of a trail is, while it is shown and has a place. */
function placeOf(entry: EntryOf<'trail'>, { entries, visibilities }: Resolution): Spot | undefined {
  const source = entries.get(entry.of);
  if (!source?.outcome.ok || !visibilities.get(entry.of)?.isShown) return undefined;
  const places = kindOf(source.entry).places?.(source.outcome.result, source.entry) ?? [];
  const place = places.find(({ key }) => key === entry.place);
  return place && Number.isFinite(place.x) && Number.isFinite(place.y) ? place : undefined;
}
