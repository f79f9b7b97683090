import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import type { TDocumentDefinitions } from "pdfmake/interfaces";

type PdfMake = {
  setFonts: (fonts: Record<string, Record<string, string>>) => void;
  setUrlAccessPolicy: (policy: () => boolean) => void;
  setLocalAccessPolicy: (policy: (path: string) => boolean) => void;
  addTableLayouts: (layouts: object) => void;
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
  pdf.addTableLayouts(TABLES);
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

/** A document as plain data, for it travels between threads, with what stands at the foot of its pages. */
export type Paper = Readonly<{ document: TDocumentDefinitions; foot: Readonly<{ left: string; right: string }> }>;

/** Layouts of tables, by the names that documents give. */
const TABLES = {
  ruled: {
    hLineWidth: () => 0.5,
    vLineWidth: () => 0,
    paddingTop: () => 3,
    paddingBottom: () => 3,
    hLineColor: () => "#777",
  },
  "to be cut": {
    hLineStyle: () => ({ dash: { length: 3 } }),
    vLineStyle: () => ({ dash: { length: 3 } }),
    hLineWidth: () => 0.6,
    vLineWidth: () => 0.6,
  },
};

/** The document as PDF bytes; made on the server, without a browser. */
export async function renderPdf({ document, foot }: Paper): Promise<Uint8Array> {
  const made = pdfMake().createPdf({
    pageSize: "A4",
    pageMargins: [40, 44, 40, 54],
    defaultStyle: { font: "Text", fontSize: 9.5, lineHeight: 1.2 },
    ...document,
    footer: (page, pages) => ({
      margin: [40, 14, 40, 0],
      fontSize: 7.5,
      columns: [
        { text: foot.left, width: "*" },
        { text: `${foot.right} · page ${page} of ${pages}`, alignment: "right", width: "auto" },
      ],
    }),
  });
  return made.getBuffer();
}
