/** How Debian's Chromium is launched. */
export const BROWSER: { readonly executablePath: string; readonly args: string[] };
