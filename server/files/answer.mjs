// How a child that gives bytes answers: four bytes of length, so much JSON, and the bytes (launch.ts takes it apart).

/** @param work gives what is told, and bytes @param told what is told of an error */
export async function answerWith(work, told) {
  const { head, data = Buffer.alloc(0) } = await work().catch((error) => ({ head: told(error) }));
  const text = Buffer.from(JSON.stringify(head));
  const length = Buffer.alloc(4);
  length.writeUInt32LE(text.length);
  process.stdout.write(Buffer.concat([length, text, data]), () => process.exit(0));
}
