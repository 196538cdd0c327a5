/** How yes and no are kept in the browser. */
export const ONE_OR_NOUGHT = {
  serializer: { read: (kept: string): boolean => kept === '1', write: (on: boolean) => (on ? '1' : '0') },
};
