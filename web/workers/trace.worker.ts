import { expose } from 'comlink';
import type { TraceChoices } from '../../core/tracing/choices';
import type { Path } from '../../core/geometry/path';
import { trace } from '../../core/tracing/trace';
import type { Picture } from '../../core/tracing/picture';
import { pixelsAt } from './pixels';

/** A trace as a page shows it over its picture, in pixels of the picture shown. */
export interface TraceView {
  readonly width: number;
  readonly height: number;
  readonly colours: readonly { readonly colour: string; readonly d: string }[];
  readonly nodes: number;
  readonly differing: number;
}

let picture: Picture | undefined;
let loaded: string | undefined;

const work = {
  async load(url: string): Promise<{ width: number; height: number }> {
    if (loaded !== url) {
      picture = await pixelsAt(url);
      loaded = url;
    }
    return { width: picture!.width, height: picture!.height };
  },

  /** @param shrunk how much smaller the picture here is than the file's: limits in pixels shrink with it */
  trace(choices: TraceChoices, shrunk: number): TraceView {
    if (!picture) throw new Error('no picture is loaded');
    const scaled = {
      ...choices,
      despeckle: choices.despeckle * shrunk * shrunk,
      smooth: choices.smooth * Math.max(shrunk, 0.5),
    };
    const { colours, nodes, differing, width, height } = trace(picture, scaled);
    const shown = colours.map(({ colour, paths }) => ({ colour, d: paths.map(svgPath).join('') }));
    return { width, height, colours: shown, nodes, differing };
  },
};

function svgPath({ ops, xy }: Path): string {
  let at = 0;
  let d = '';
  for (const op of ops) {
    const takes = op === 'C' ? 6 : op === 'Z' ? 0 : 2;
    d += op + Array.from({ length: takes }, (_, k) => xy[at + k].toFixed(2)).join(' ');
    at += takes;
  }
  return d;
}

export type TraceWork = typeof work;

expose(work);
