/** How a colour is mixed where it is printed, as its file says it; shares from 0 to 1. Missing: of light, as it is shown. */
export type PrintInk =
  | { readonly kind: 'grey'; readonly white: number }
  | { readonly kind: 'cmyk'; readonly shares: Cmyk }
  | {
      readonly kind: 'spot';
      readonly name: string;
      readonly tint: number;
      /** What stands in for it at full tint. */
      readonly full: Cmyk;
    };

export type Cmyk = readonly [c: number, m: number, y: number, k: number];
