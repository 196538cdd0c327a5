// Debian's Chromium without its windows, for tests, pictures and benches.
import { aptMissing } from './run.mjs';

const COMMAND = 'chromium-headless-shell';

export const BROWSER = {
  executablePath: `/usr/bin/${COMMAND}`,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
};

export const installBrowser = () => aptMissing({ [COMMAND]: COMMAND });
