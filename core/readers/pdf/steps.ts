/** What each of the parser's steps does. */
import { own } from '../../units/own';
import type { Matrix } from '../../geometry/matrix';
import type { Cap, Join } from '../../geometry/region';
import type { Drawing } from './drawing';
import type { Text } from './text';
import type { Told } from './told';

const CAPS: readonly Cap[] = ['butt', 'round', 'square'];
const JOINS: readonly Join[] = ['miter', 'round', 'bevel'];

/** A page being drawn, step by step. */
export interface Page {
  readonly drawing: Drawing;
  readonly text: Text;
  readonly told: Told;
}

type Step = (page: Page, args: readonly unknown[]) => void;

/** Carries one of the parser's steps out; nothing is painted while a layer is switched off. */
export function carryOut(page: Page, name: string, args: readonly unknown[]): void {
  const mark = own(MARKS, name);
  if (mark) return mark(page, args);
  if (page.drawing.isHidden && PAINTING.has(name)) return page.told.count('hidden');
  own(STEPS, name)?.(page, args);
}

const PAINTING = new Set([
  'constructPath',
  'showText',
  'shadingFill',
  'paintImageXObject',
  'paintImageMaskXObject',
]);

const MARKS: Readonly<Record<string, Step>> = {
  beginMarkedContentProps: ({ drawing: d }, [tag, properties]) =>
    tag === 'OC' ? d.openLayer(properties) : d.openMark(),
  beginMarkedContent: ({ drawing: d }, [tag]) => {
    const ink = INK.exec(String((tag as { name?: unknown } | null)?.name));
    if (ink) d.ink(ink[1] === 'f' ? 'fill' : 'stroke', Number(ink[2]));
    d.openMark();
  },
  endMarkedContent: ({ drawing: d }) => d.closeMark(),
};

/** A mark of the parser's (server/files/inks.mjs): what is painted next is painted with an ink. */
const INK = /^JamPanInk\.([fs])(\d+)$/;

const picture: Step = ({ told }) => told.count('image');
const n = (value: unknown): number => (Number.isFinite(value) ? (value as number) : 0);

const STEPS: Readonly<Record<string, Step>> = {
  save: ({ drawing: d }) => d.save(),
  restore: ({ drawing: d }) => d.restore(),
  transform: ({ drawing: d }, args) => d.transform(args as unknown as Matrix),
  setLineWidth: ({ drawing: d }, [width]) => d.style({ width: n(width) }),
  setLineCap: ({ drawing: d }, [cap]) => d.style({ cap: CAPS[n(cap)] ?? 'butt' }),
  setLineJoin: ({ drawing: d }, [join]) => d.style({ join: JOINS[n(join)] ?? 'miter' }),
  setMiterLimit: ({ drawing: d }, [limit]) => d.style({ miterLimit: n(limit) }),
  setDash: ({ drawing: d }, [dashes, start]) => d.style({ dashes: dashes as number[], dashStart: n(start) }),
  setGState: (page, [states]) =>
    (states as [string, unknown][]).forEach(([key, value]) => graphicsState(page, key, value)),
  setFillRGBColor: ({ drawing: d }, [colour]) =>
    d.paint('fill', { colour: String(colour).toLowerCase(), gradient: false, ink: undefined }),
  setStrokeRGBColor: ({ drawing: d }, [colour]) =>
    d.paint('stroke', { colour: String(colour).toLowerCase(), gradient: false, ink: undefined }),
  setFillTransparent: ({ drawing: d }) => d.paint('fill', { opacity: 0 }),
  setStrokeTransparent: ({ drawing: d }) => d.paint('stroke', { opacity: 0 }),
  setFillColorN: ({ drawing: d }, args) => d.shade('fill', args),
  setStrokeColorN: ({ drawing: d }, args) => d.shade('stroke', args),
  shadingFill: ({ drawing: d }, [id]) => d.fillWithShading(String(id)),
  clip: ({ drawing: d }) => d.clipNext('nonzero'),
  eoClip: ({ drawing: d }) => d.clipNext('evenodd'),
  constructPath: ({ drawing: d }, [operation, data]) =>
    d.path(n(operation), (data as (number[] | null)[])[0]),
  paintFormXObjectBegin: ({ drawing: d }, [matrix, box]) => d.form(matrix, box),
  paintFormXObjectEnd: ({ drawing: d }) => d.restore(),
  beginText: ({ text }) => text.begin(),
  setFont: ({ drawing: d }, [font, size]) => d.set({ font: String(font), fontSize: n(size) }),
  setCharSpacing: ({ drawing: d }, [spacing]) => d.set({ charSpacing: n(spacing) }),
  setWordSpacing: ({ drawing: d }, [spacing]) => d.set({ wordSpacing: n(spacing) }),
  setHScale: ({ drawing: d }, [scale]) => d.set({ hScale: n(scale) / 100 }),
  setLeading: ({ drawing: d }, [leading]) => d.set({ leading: -n(leading) }),
  setTextRenderingMode: ({ drawing: d }, [mode]) => d.set({ textMode: n(mode) }),
  setTextRise: ({ drawing: d }, [rise]) => d.set({ rise: n(rise) }),
  setTextMatrix: ({ text }, [matrix]) => text.setMatrix(Object.values(matrix as object) as unknown as Matrix),
  moveText: ({ text }, [x, y]) => text.move(n(x), n(y)),
  nextLine: ({ text }) => text.nextLine(),
  showText: ({ text }, [glyphs]) => text.show(glyphs as unknown[]),
  paintImageXObject: picture,
  paintImageMaskXObject: picture,
  paintInlineImageXObject: picture,
  paintImageMaskXObjectGroup: picture,
  paintInlineImageXObjectGroup: picture,
  paintImageXObjectRepeat: picture,
  paintImageMaskXObjectRepeat: picture,
  paintSolidColorImageMask: picture,
};

function graphicsState({ drawing, told }: Page, key: string, value: unknown): void {
  if (key === 'LW') drawing.style({ width: n(value) });
  else if (key === 'LC') drawing.style({ cap: CAPS[n(value)] ?? 'butt' });
  else if (key === 'LJ') drawing.style({ join: JOINS[n(value)] ?? 'miter' });
  else if (key === 'ML') drawing.style({ miterLimit: n(value) });
  else if (key === 'D')
    drawing.style({ dashes: (value as [number[], number])[0], dashStart: (value as [number[], number])[1] });
  else if (key === 'ca') drawing.paint('fill', { opacity: n(value) });
  else if (key === 'CA') drawing.paint('stroke', { opacity: n(value) });
  else if (key === 'SMask' && value) told.count('mask');
}
