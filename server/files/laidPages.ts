/** Pages of other files on the page of a PDF: named while it is drawn, and put in when it is done. */
import { PDFDict, PDFDocument, PDFName } from 'pdf-lib';
import type { Doc } from './sheet';

export class LaidPages {
  private readonly names = new Map<Buffer, string>();

  /** Draws the first page of a file in a square of 1, y up. Each is in the document once however often it is seen. */
  lay(doc: Doc, file: Buffer): void {
    const name = this.names.get(file) ?? `Page${this.names.size}`;
    this.names.set(file, name);
    doc.addContent(`/${name} Do`);
  }

  /** @param pdf the document of one page that they were laid on */
  async filledIn(pdf: Buffer): Promise<Buffer> {
    if (this.names.size === 0) return pdf;
    const document = await PDFDocument.load(pdf, { updateMetadata: false });
    const forms = document.context.obj({});
    const resources = document.getPage(0).node.Resources()!;
    const known = resources.lookupMaybe(PDFName.of('XObject'), PDFDict);
    for (const [name, value] of known?.entries() ?? []) forms.set(name, value);
    for (const [file, name] of this.names) {
      const [page] = (await PDFDocument.load(file, { updateMetadata: false })).getPages();
      const { width, height } = page.getSize();
      const whole = { left: 0, bottom: 0, right: width, top: height };
      const form = await document.embedPage(page, whole, [1 / width, 0, 0, 1 / height, 0, 0]);
      forms.set(PDFName.of(name), form.ref);
    }
    resources.set(PDFName.of('XObject'), forms);
    return Buffer.from(await document.save());
  }
}
