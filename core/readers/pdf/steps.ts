/** What each of the parser's steps does. */
import { own } from '../../units/own';
import type { Matrix } from '../../geometry/matrix';
import type { Cap, Join } from '../../geometry/region';
import type { Drawing, Group } from './drawing';
import type { Text } from './text';

const CAPS: readonly Cap[] = ['butt', 'round', 'square'];
const JOINS: readonly Join[] = ['miter', 'round', 'bevel'];

/** A page being drawn, step by step. */
export interface Page {
  readonly drawing: Drawing;
  readonly text: Text;
}

type Step = (page: Page, args: readonly unknown[]) => void;

/** Carries one of the parser's steps out. */
export function carryOut(page: Page, name: string, args: readonly unknown[]): void {
  own(STEPS, name)?.(page, args);
}

const MARKS: Readonly<Record<string, Step>> = {
  beginMarkedContentProps: ({ drawing: d }, [tag, properties]) =>
    tag === 'OC' ? d.openLayer(properties) : d.openMark(),
  beginMarkedContent: ({ drawing: d }, [tag]) => {
    const ink = INK.exec(String((tag as { name?: unknown } | null)?.name));
    const which = ink?.[1] === 'f' ? 'fill' : 'stroke';
    if (ink?.[2] === 'none') d.paint(which, { isNone: true });
    else if (ink) d.setInk(which, Number(ink[2]));
    d.openMark();
  },
  endMarkedContent: ({ drawing: d }) => d.closeMark(),
};

/** A mark of the parser's (server/files/inks.mjs): what is painted next is painted with an ink. */
const INK = /^JamPanInk\.([fs])(\d+|none)$/;

/** Where a picture lies in its own space, packed as the parser packs paths. */
const UNIT_SQUARE = [0, 0, 0, 1, 1, 0, 1, 1, 1, 1, 0, 1, 4];

const picture: Step = ({ drawing: d }) => {
  if (d.isSeen()) d.told.count('image');
};
const n = (value: unknown): number => (Number.isFinite(value) ? (value as number) : 0);

const STEPS: Readonly<Record<string, Step>> = {
  ...MARKS,
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
  setFillRGBColor: ({ drawing: d }, [colour]) => d.setColour('fill', String(colour).toLowerCase()),
  setStrokeRGBColor: ({ drawing: d }, [colour]) => d.setColour('stroke', String(colour).toLowerCase()),
  setFillTransparent: ({ drawing: d }) => d.paint('fill', { isNone: true }),
  setStrokeTransparent: ({ drawing: d }) => d.paint('stroke', { isNone: true }),
  setFillColorN: ({ drawing: d }, args) => d.setPattern('fill', args),
  setStrokeColorN: ({ drawing: d }, args) => d.setPattern('stroke', args),
  shadingFill: ({ drawing: d }, [id]) => d.fillWithShading(String(id)),
  clip: ({ drawing: d }) => d.clipNext('nonzero'),
  eoClip: ({ drawing: d }) => d.clipNext('evenodd'),
  constructPath: ({ drawing: d }, [operation, data]) =>
    d.path(n(operation), (data as (number[] | null)[])[0]),
  paintFormXObjectBegin: ({ drawing: d }, [matrix, box]) => d.openForm(matrix, box),
  paintFormXObjectEnd: ({ drawing: d }) => d.closeForm(),
  beginGroup: ({ drawing: d }, [group]) => d.openGroup(group as Group),
  endGroup: ({ drawing: d }, [group]) => d.closeGroup(group as Group),
  setCharWidthAndBounds: ({ drawing: d }, args) => d.clipToGlyph(args.slice(2) as number[]),
  beginText: ({ text }) => text.begin(),
  endText: ({ text }) => text.end(),
  setFont: ({ drawing: d }, [font, size]) => d.set({ font: String(font), fontSize: n(size) }),
  setCharSpacing: ({ drawing: d }, [spacing]) => d.set({ charSpacing: n(spacing) }),
  setWordSpacing: ({ drawing: d }, [spacing]) => d.set({ wordSpacing: n(spacing) }),
  setHScale: ({ drawing: d }, [scale]) => d.set({ hScale: n(scale) / 100 }),
  setLeading: ({ drawing: d }, [leading]) => d.set({ leading: n(leading) }),
  setTextRenderingMode: ({ drawing: d }, [mode]) => d.set({ textMode: n(mode) }),
  setTextRise: ({ drawing: d }, [rise]) => d.set({ rise: n(rise) }),
  setTextMatrix: ({ text }, [matrix]) => text.setMatrix(Object.values(matrix as object) as unknown as Matrix),
  moveText: ({ text }, [x, y]) => text.move(n(x), n(y)),
  setLeadingMoveText: ({ text }, [x, y]) => text.setLeadingAndMove(n(x), n(y)),
  nextLine: ({ text }) => text.nextLine(),
  showText: ({ text }, [glyphs]) => text.show(glyphs as unknown[]),
  paintImageXObject: picture,
  paintImageMaskXObject: picture,
  paintInlineImageXObject: picture,
  paintImageMaskXObjectGroup: picture,
  paintInlineImageXObjectGroup: picture,
  paintImageXObjectRepeat: picture,
  paintImageMaskXObjectRepeat: picture,
  paintSolidColorImageMask: ({ drawing: d }) => d.path(22, UNIT_SQUARE),
};

function graphicsState({ drawing }: Page, key: string, value: unknown): void {
  if (key === 'LW') drawing.style({ width: n(value) });
  else if (key === 'LC') drawing.style({ cap: CAPS[n(value)] ?? 'butt' });
  else if (key === 'LJ') drawing.style({ join: JOINS[n(value)] ?? 'miter' });
  else if (key === 'ML') drawing.style({ miterLimit: n(value) });
  else if (key === 'D')
    drawing.style({ dashes: (value as [number[], number])[0], dashStart: (value as [number[], number])[1] });
  else if (key === 'ca') drawing.paint('fill', { opacity: n(value) });
  else if (key === 'CA') drawing.paint('stroke', { opacity: n(value) });
  else if (key === 'Font')
    drawing.set({ font: String((value as unknown[])[0]), fontSize: n((value as unknown[])[1]) });
  else if (key === 'BM') drawing.set({ isBlended: value !== 'source-over' });
  else if (key === 'SMask' && value) drawing.told.count('mask');
}
