import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import type { TDocumentDefinitions } from "pdfmake/interfaces";

type PdfMake = {
  setFonts: (fonts: Record<string, Record<string, string>>) => void;
  setUrlAccessPolicy: (policy: () => boolean) => void;
  setLocalAccessPolicy: (policy: (path: string) => boolean) => void;
  createPdf: (document: TDocumentDefinitions) => { getBuffer: () => Promise<Buffer> };
};

let ready: PdfMake | undefined;

/** pdfmake with our own fonts, which cover the languages of Europe; it may read these fonts and nothing else. */
function pdfMake(): PdfMake {
  if (ready) return ready;
  const require = createRequire(join(process.env.LANTERN_HOME ?? process.cwd(), "package.json"));
  const fonts = join(dirname(require.resolve("dejavu-fonts-ttf/package.json")), "ttf");
  const file = (name: string) => join(fonts, `${name}.ttf`);
  const pdf = require("pdfmake") as PdfMake;
  pdf.setUrlAccessPolicy(() => false);
  pdf.setLocalAccessPolicy((path) => path.startsWith(fonts));
  pdf.setFonts({
    Text: {
      normal: file("DejaVuSans"),
      bold: file("DejaVuSans-Bold"),
      italics: file("DejaVuSans-Oblique"),
      bolditalics: file("DejaVuSans-BoldOblique"),
    },
    Mono: {
      normal: file("DejaVuSansMono"),
      bold: file("DejaVuSansMono-Bold"),
      italics: file("DejaVuSansMono"),
      bolditalics: file("DejaVuSansMono-Bold"),
    },
  });
  ready = pdf;
  return pdf;
}

/** The document as PDF bytes; made on the server, without a browser. */
export function renderPdf(document: TDocumentDefinitions): Promise<Buffer> {
  return pdfMake()
    .createPdf({
      pageSize: "A4",
      pageMargins: [40, 44, 40, 54],
      defaultStyle: { font: "Text", fontSize: 9.5, lineHeight: 1.2 },
      ...document,
    })
    .getBuffer();
}
