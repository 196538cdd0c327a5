/** How a cutter is reached. */
interface AnyLink {
  /** Of a simulated cutter with an address of its own: its panel, where its record of the knife's way is fetched. */
  readonly panel?: string;
  /** It says nothing of itself: it is fed as fast as it takes, and how far it is is reckoned. */
  readonly isSilent?: boolean;
}

/** A raw TCP port. */
export interface TcpLink extends AnyLink {
  /** Missing in those of earlier versions. */
  readonly by?: 'tcp';
  readonly host: string;
  readonly port: number;
}

export interface SerialLink extends AnyLink {
  readonly by: 'serial';
  readonly device: string;
  readonly baud: number;
  /** Who makes the sender wait: two wires, two characters, or nobody. */
  readonly flow: 'hardware' | 'software' | 'none';
}

/** A device file that takes bytes and gives none, such as a USB printer port's. */
export interface DeviceLink extends AnyLink {
  readonly by: 'device';
  readonly device: string;
}

/** A folder into which every cut is written as a file, for whatever takes it from there. */
export interface FolderLink extends AnyLink {
  readonly by: 'folder';
  /** Its name among the folders that cuts are written into. */
  readonly folder: string;
}

/** A simulated cutter that runs beside the server. */
export interface SimulatorLink extends AnyLink {
  readonly by: 'simulator';
  readonly name: string;
}

export type Link = TcpLink | SerialLink | DeviceLink | FolderLink | SimulatorLink;

/** Nothing of it is asked. */
export const isSilent = ({ by, isSilent: said }: Link): boolean =>
  said === true || by === 'device' || by === 'folder';
