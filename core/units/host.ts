/** Whether a text may be where a machine is: a name, or an address of version 4 or 6; no path and no blanks. */
export const isHost = (text: string): boolean => /^[a-z0-9.:_-]+$/i.test(text);
