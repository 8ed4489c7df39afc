// Devices that answer by our register map with figures that never change, for the bench of the reader: run as a process of their own.
import { createServer } from 'node:net';

let words = new Uint16Array(0);
const HEAD = 12;

/** Answers every request of function 3 in a chunk: header, function, count of bytes, words. */
function answer(socket, chunk) {
  for (let at = 0; at + HEAD <= chunk.length; at += HEAD) {
    const [from, count] = [chunk.readUInt16BE(at + 8), chunk.readUInt16BE(at + 10)];
    const reply = Buffer.alloc(9 + 2 * count);
    chunk.copy(reply, 0, at, at + 4);
    reply.writeUInt16BE(3 + 2 * count, 4);
    reply[6] = chunk[at + 6];
    reply[7] = 3;
    reply[8] = 2 * count;
    for (let index = 0; index < count; index += 1)
      reply.writeUInt16BE(words[from + index] ?? 0, 9 + 2 * index);
    socket.write(reply);
  }
}

const server = createServer((socket) => {
  socket.setNoDelay(true);
  socket.on('error', () => undefined);
  socket.on('data', (chunk) => answer(socket, chunk));
});
process.once('message', (told) => {
  words = Uint16Array.from(told);
  server.listen(0, '127.0.0.1', () => process.send(server.address().port));
});
