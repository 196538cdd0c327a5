/** How a picture is traced. Limits in pixels of the picture. */
export interface TraceChoices {
  /** By print it is not traced: it is printed as it is, and cut around where it is opaque. */
  readonly by: 'brightness' | 'alpha' | 'colours' | 'print';
  /** 0 … 1: what is darker, or more opaque, is inside. Not used for colours. */
  readonly threshold: number;
  /** Whether what is brighter is inside instead. */
  readonly invert: boolean;
  /** Number of colours, 2 … 12. */
  readonly colours: number;
  /** Whether the colour that lines the picture's edge is left out. */
  readonly dropGround: boolean;
  /** Spots and holes of fewer pixels are left out. */
  readonly despeckle: number;
  /** px of blur before the outline is looked for, 0 … 4. */
  readonly smooth: number;
  /** Degrees: an outline that turns by more keeps a corner. */
  readonly corner: number;
}
