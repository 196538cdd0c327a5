/** Pictures that are printed as they are, fetched once and ready to be drawn. */
import type { Remote } from 'comlink';
import { wrap } from 'comlink';
import { onScopeDispose, shallowReactive, watchEffect } from 'vue';
import { pictureAddress } from '../../../stores/pictureAddress';
import type { DrawnPicture, PictureWork } from '../../../workers/picture.worker';
import PictureWorker from '../../../workers/picture.worker?worker';
import type { PrintedArea } from '../../../workers/packedSheets';

/** px: no picture is shown wider. */
const SHOWN_WIDTH = 1600;

export type Pictures = ReadonlyMap<string, DrawnPicture>;

const nameOf = ({ picture, reach }: Pick<PrintedArea, 'picture' | 'reach'>): string =>
  picture ? `${pictureAddress(picture.file, picture.part, SHOWN_WIDTH)} ${reach ?? ''}` : '';
/** Of pictures: bleed is grown, the art itself is not. */
export const isArt = ({ reach }: Pick<PrintedArea, 'reach'>): boolean => reach === undefined;
export const pictureIn = (pictures: Pictures, area: PrintedArea): DrawnPicture | undefined =>
  area.picture && pictures.get(nameOf(area));

/** Follows what is printed; what cannot be fetched stays an area of its colour. */
export function usePictures(art: () => readonly PrintedArea[]): Pictures {
  const pictures = shallowReactive(new Map<string, DrawnPicture>());
  const asked = new Set<string>();
  let thread: Worker | undefined;
  // kept: a worker that nobody holds the other end of stops listening
  let work: Remote<PictureWork> | undefined;
  onScopeDispose(() => thread?.terminate());
  function open(): Remote<PictureWork> {
    thread = new PictureWorker();
    return wrap<PictureWork>(thread);
  }
  watchEffect(() => {
    for (const { picture, reach } of art()) {
      const name = nameOf({ picture, reach });
      if (!picture || asked.has(name)) continue;
      asked.add(name);
      work ??= open();
      const url = pictureAddress(picture.file, picture.part, SHOWN_WIDTH);
      void work
        .fetch(url, picture.width, reach)
        .then((drawn) => pictures.set(name, drawn))
        .catch(() => asked.delete(name));
    }
  });
  return pictures;
}
