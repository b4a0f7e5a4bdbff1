// Writes containers as [MS-OXTNEF] defines them, for tests.

const number = (value: number, bytes: 2 | 4) => {
  const written = Buffer.alloc(bytes);
  if (bytes === 2) written.writeUInt16LE(value);
  else written.writeUInt32LE(value);
  return written;
};

function attribute(level: 1 | 2, id: number, content: Uint8Array): Buffer {
  const sum = content.reduce((total, byte) => (total + byte) % 0x10000, 0);
  return Buffer.concat([Buffer.from([level]), number(id, 4), number(content.byteLength, 4), content, number(sum, 2)]);
}

/** A property: its type and id, and its value. */
export type WrittenProperty = { readonly type: number; readonly id: number; readonly value: Uint8Array };

function propertyList(properties: readonly WrittenProperty[]): Buffer {
  const written = properties.flatMap(({ type, id, value }) => {
    const isFixed = type === 3;
    const padding = Buffer.alloc((4 - (value.byteLength % 4)) % 4);
    return [
      number(type, 2),
      number(id, 2),
      ...(isFixed ? [] : [number(1, 4), number(value.byteLength, 4)]),
      value,
      padding,
    ];
  });
  return Buffer.concat([number(properties.length, 4), ...written]);
}

export type WrittenFile = {
  readonly name: string;
  readonly content: Uint8Array;
  readonly properties?: readonly WrittenProperty[];
};

/** A container with the properties of a message and its files. */
export function writeTnef(message: readonly WrittenProperty[], files: readonly WrittenFile[]): Buffer {
  return Buffer.concat([
    number(0x223e9f78, 4),
    number(1, 2),
    attribute(1, 0x00069003, propertyList(message)),
    ...files.flatMap(({ name, content, properties = [] }) => [
      attribute(2, 0x00069002, Buffer.alloc(14)),
      attribute(2, 0x00018010, Buffer.from(`${name}\0`, "latin1")),
      ...(content.byteLength === 0 ? [] : [attribute(2, 0x0006800f, content)]),
      attribute(2, 0x00069005, propertyList(properties)),
    ]),
  ]);
}

/** A text as a property holds it in Unicode. */
export const unicode = (id: number, text: string): WrittenProperty => ({
  type: 0x1f,
  id,
  value: Buffer.from(`${text}\0`, "utf16le"),
});

/** A body in RTF, not compressed ([MS-OXRTFCP] 2.1.3.1). */
export function rtfProperty(rtf: string): WrittenProperty {
  const body = Buffer.from(rtf, "latin1");
  const header = Buffer.concat([
    number(body.byteLength + 12, 4),
    number(body.byteLength, 4),
    number(0x414c454d, 4),
    number(0, 4),
  ]);
  return { type: 0x102, id: 0x1009, value: Buffer.concat([header, body]) };
}
