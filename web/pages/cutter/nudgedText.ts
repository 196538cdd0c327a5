import type { Cut } from '../../../contracts/cuts';
import type { LineKind } from '../../../core/artwork/choices';
import { kindName } from '../order/artwork/kinds';

/** What a cut was cut with instead of what its recipes say; nothing: as they say. */
export function nudgedText({ nudges, writtenWith }: Pick<Cut, 'nudges' | 'writtenWith'>): string {
  const several = Object.keys(writtenWith).length > 1;
  return (Object.keys(nudges) as LineKind[])
    .flatMap((kind) => {
      const [nudge, written] = [nudges[kind], writtenWith[kind]];
      const of = several ? ` (${kindName(kind)})` : '';
      return [
        ...(nudge?.force === undefined ? [] : [`${nudge.force} g instead of ${written?.force} g${of}`]),
        ...(nudge?.speed === undefined ? [] : [`${nudge.speed} cm/s instead of ${written?.speed} cm/s${of}`]),
      ];
    })
    .join(' and ');
}
