/** Where the ink charts stand, px: how tall they are, how far off the sign, and how much further beside it. */
export const CHART = { tall: 44, off: 48, aside: 34 } as const;
