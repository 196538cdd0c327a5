/** A number with so many decimals, as it is written into files and shown: three are a thousandth of a millimetre. */
export const rounded = (value: number, decimals = 3): number =>
  Math.round(value * 10 ** decimals) / 10 ** decimals;
