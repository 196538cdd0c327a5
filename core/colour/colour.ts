import {
  clampRgb,
  converter,
  differenceCiede2000,
  formatHex,
  modeLab65,
  modeRgb,
  modeXyz65,
  parseHex,
  useMode,
} from 'culori/fn';

/** CIE L*a*b*, D65. */
export interface Lab {
  readonly l: number;
  readonly a: number;
  readonly b: number;
}

// culori carries only the colour spaces that are asked for
[modeRgb, modeXyz65, modeLab65].forEach((mode) => useMode(mode));

const toLab65 = converter('lab65');
const toRgb = converter('rgb');
const ciede2000 = differenceCiede2000();

/** `#rrggbb` to CIE L*a*b* under D65. @throws Error for anything that is not such a colour */
export function labOf(hex: string): Lab {
  const colour = parseHex(hex);
  const lab = colour && toLab65(colour);
  if (!lab) throw new Error(`not a colour: ${hex}`);
  return { l: lab.l, a: lab.a, b: lab.b };
}

/** CIE L*a*b* under D65 to `#rrggbb`; what no screen shows comes as near as it can. */
export const hexOfLab = (lab: Lab): string => formatHex(clampRgb(toRgb({ mode: 'lab65', ...lab })));

/** Colour difference ΔE00 (CIE 142-2001, as restated by Sharma, Wu & Dalal 2005). About 1 is just seen. */
export const deltaE = (p: Lab, q: Lab): number => ciede2000({ mode: 'lab65', ...p }, { mode: 'lab65', ...q });
