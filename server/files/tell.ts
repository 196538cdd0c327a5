/** Hears how far a reading has come, 0 … 1. */
export type Tell = (share: number) => void;
