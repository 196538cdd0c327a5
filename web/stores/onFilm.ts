import { defineStore } from 'pinia';
import { computed } from 'vue';
import type { PackedPiece, PackedStrip, RollPick } from '../../core/layout/strip';
import { pieceName, turnsOf } from '../../core/layout/strip';
import type { WeedLineAt } from '../../core/layout/weedChoices';
import { own } from '../../core/units/own';
import { rounded } from '../../core/units/rounded';
import type { StripView } from '../workers/packed';
import { middleOfWidest } from './middleOfWidest';
import { useOrder } from './order';
import { usePacking } from './packing';

/** Degrees that a piece is turned by where any way will do. */
const FREE_STEP = 15;

/** Where a piece is put by hand; what is not said stays. */
export type Put = Partial<Pick<PackedPiece, 'x' | 'y' | 'turn' | 'pinned'>>;

/** Pieces and weed lines as a person lays them on the film. */
export const useOnFilm = defineStore('on-film', () => {
  const order = useOrder();
  const packing = usePacking();
  /** A search lays everything by itself, and what is only looked at is nobody's. */
  const linesAreFree = computed(() => !packing.now && !order.looked);
  /** While it is planned, pieces are not yet where they will lie. */
  const isFree = computed(() => linesAreFree.value && !order.planning);
  const layout = computed(() => order.choices!.layout);
  const stripsOf = (film: string): readonly StripView[] =>
    (order.plan?.strips ?? []).filter((strip) => strip.film.id === film);

  /** Puts one piece of a strip; where it was put by hand it stays. */
  function put(strip: StripView, piece: PackedPiece, to: Put): void {
    const packed = stripsOf(strip.film.id).map(({ roll, placements }): PackedStrip => ({
      roll: roll.width,
      pieces: placements.flatMap(({ kept }) => {
        if (!kept) return [];
        const isIt = pieceName(kept.part, kept.copy) === pieceName(piece.part, piece.copy);
        return [isIt ? { ...kept, pinned: true, ...to } : kept];
      }),
    }));
    order.change({
      layout: { ...layout.value, packed: { ...layout.value.packed, [strip.film.id]: packed } },
    });
  }

  /** What a film is cut from; undefined: whichever takes the least of it. */
  function pickRoll(film: string, pick: RollPick | undefined): void {
    const { [film]: _gone, ...rest } = layout.value.rolls;
    const rolls = pick === undefined ? rest : { ...rest, [film]: pick };
    order.change({ layout: { ...layout.value, rolls } });
  }

  /** Degrees that a key turns a piece by, as its film and the order allow; 0: not at all. */
  function turnStep({ film }: StripView): number {
    const turns = turnsOf(layout.value, film);
    return turns.length === 0 ? FREE_STEP : (turns[1] ?? 0);
  }

  /** Where lines are wanted on a strip, each once, whatever way they are laid. */
  function linesOn({ id, weeding }: StripView): readonly WeedLineAt[] {
    const { way, byHand } = layout.value.weedLines;
    if (way === 'hand') return own(byHand, id) ?? [];
    const all = weeding.lines.flat().map(({ axis, at }) => ({ axis, at: rounded(at, 2) }));
    return [...new Map(all.map((line) => [`${line.axis} ${line.at}`, line])).values()];
  }

  /** Lines of one strip as a person wants them; those of all others are theirs by hand too from then on. */
  function setLines(strip: StripView, lines: readonly WeedLineAt[]): void {
    const { weedLines } = layout.value;
    const before =
      weedLines.way === 'hand'
        ? weedLines.byHand
        : Object.fromEntries((order.plan?.strips ?? []).map((one) => [one.id, linesOn(one)]));
    const byHand = { ...before, [strip.id]: lines };
    order.change({ layout: { ...layout.value, weedLines: { ...weedLines, way: 'hand', byHand } } });
  }
  /** Across the film, there or in the middle of the widest gap. */
  function addLine(strip: StripView, there: number | undefined): void {
    const lines = linesOn(strip);
    const across = lines.filter(({ axis }) => axis === 'upright').map(({ at }) => at);
    const at = rounded(there ?? middleOfWidest(0, strip.length, across), 1);
    setLines(strip, [...lines, { axis: 'upright', at }]);
  }
  const moveLine = (strip: StripView, line: WeedLineAt, at: number): void =>
    setLines(
      strip,
      linesOn(strip).map((one) => (isSameLine(one, line) ? { ...one, at: rounded(at, 1) } : one)),
    );
  const removeLine = (strip: StripView, line: WeedLineAt): void =>
    setLines(
      strip,
      linesOn(strip).filter((one) => !isSameLine(one, line)),
    );
  return { isFree, linesAreFree, put, pickRoll, turnStep, linesOn, addLine, moveLine, removeLine };
});

const isSameLine = (a: WeedLineAt, b: WeedLineAt): boolean => a.axis === b.axis && a.at === b.at;
