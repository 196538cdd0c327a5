/** What a machine is calibrated for, and the ways of going about it. */
import type { Quantity } from '../../../../core/calibration/stale';
import { quantityOf } from '../../../../core/calibration/stale';
import type { CalibrationKind, Setup } from '../../../../core/calibration/run';

export interface Way {
  readonly kind: CalibrationKind;
  readonly axis?: 'along' | 'across';
  readonly label: string;
  readonly title: string;
  /** What is done, before it is. */
  readonly says: string;
  readonly button: string;
}

export const WAYS: Readonly<Record<Quantity, readonly Way[]>> = {
  sensor: [
    {
      kind: 'sensor-pen',
      label: 'Pen and read',
      title: 'Where does the sensor sit?',
      says: 'A pen draws five marks on plain, pale film; the sensor reads them back. Put a pen into the holder in place of the knife, and load some film. It goes at the lowest speed.',
      button: 'Draw and read',
    },
    {
      kind: 'sensor-print',
      label: 'Print and cut',
      title: 'Where does the cut lie?',
      says: 'Five crosses are printed with marks around them; the sensor reads the marks and the knife cuts onto the crosses. Print the sheet at 100 %, load it, and cut.',
      button: 'Make the sheet',
    },
  ],
  contrast: [
    {
      kind: 'contrast',
      label: 'Read a sheet',
      title: 'What counts as a mark here?',
      says: 'A sheet with marks is printed on the stock; the sensor reads them, and the bare stock beside them. From then on marks on that stock are told by what it really shows. Nothing is cut.',
      button: 'Make the sheet',
    },
  ],
  length: [
    {
      kind: 'length',
      axis: 'along',
      label: 'Along the film',
      title: 'Is a metre a metre?',
      says: 'A line with ticks is cut along the film. Measure with a tape from the first tick to each of the others.',
      button: 'Cut the line',
    },
    {
      kind: 'length',
      axis: 'across',
      label: 'Across it',
      title: 'Is a metre a metre?',
      says: 'A line with ticks is cut across the film. Measure with a tape from the first tick to each of the others.',
      button: 'Cut the line',
    },
  ],
  blade: [
    {
      kind: 'blade-row',
      label: 'Row of shapes',
      title: 'Which corners close?',
      says: 'Eleven squares are cut, each with a larger blade offset than the one before. A second row is finer, about what the first one found.',
      button: 'Cut the row',
    },
    {
      kind: 'blade-gap',
      label: 'Gaps',
      title: 'How wide is the gap?',
      says: 'The holder comes to the same place from both sides, and the knife stays behind by its offset each time. Measure the four gaps with a loupe.',
      button: 'Cut the lines',
    },
  ],
  overcut: [
    {
      kind: 'overcut-row',
      label: 'Row of shapes',
      title: 'Which corner comes free?',
      says: 'Eleven squares are cut, each further past its start than the one before. Take the first that comes away whole.',
      button: 'Cut the row',
    },
  ],
};

export const isOf = (quantity: Quantity, { kind }: Setup): boolean => quantityOf(kind) === quantity;
