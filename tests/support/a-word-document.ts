import { buffer } from "node:stream/consumers";
import { zipStream } from "~/mail/index";

const PARTS = (text: string): readonly (readonly [folder: string, name: string, content: string])[] => [
  [
    "",
    "[Content_Types].xml",
    `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">
      <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>
      <Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/>
    </Types>`,
  ],
  [
    "_rels/",
    ".rels",
    `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
      <Relationship Id="r1" Target="word/document.xml" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument"/>
    </Relationships>`,
  ],
  [
    "word/",
    "document.xml",
    `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">
      <w:body><w:p><w:r><w:t>${text}</w:t></w:r></w:p></w:body>
    </w:document>`,
  ],
];

/** A Word document (ECMA-376) of one paragraph. */
export async function aWordDocument(text: string): Promise<Uint8Array> {
  const entries = PARTS(text).map(([folder, name, content]) => ({
    folder,
    name,
    load: async () => Buffer.from(content),
  }));
  return buffer(zipStream(entries, new Date(0)));
}
