/**
 * The load: one process that keeps so many connections busy, each with one request at a time, written straight to the socket.
 * Answers what it measured to whoever started it. Plain JavaScript, so that nothing slows it.
 */
import { connect } from 'node:net';

const opened = (port) =>
  new Promise((resolve, reject) => {
    const socket = connect({ port, host: '127.0.0.1', noDelay: true }, () => resolve(socket));
    socket.once('error', reject);
  });

/** One connection at work; settles when its time is up, or fails at the first answer that is not as it should be. */
const work = (socket, { request, status, until }, times) =>
  new Promise((resolve, reject) => {
    let head = '';
    // Bytes that are still to come of this answer; -1 while its head is read.
    let left = -1;
    let bytes = 0;
    let sent = 0;
    const send = () => {
      if (performance.now() >= until) {
        socket.destroy();
        resolve(bytes);
        return;
      }
      sent = performance.now();
      socket.write(request);
    };
    socket.on('error', reject);
    socket.on('close', () => reject(new Error('The connection was closed.')));
    socket.on('data', (chunk) => {
      bytes += chunk.length;
      if (left < 0) {
        head += chunk.toString('latin1');
        const end = head.indexOf('\r\n\r\n');
        if (end < 0) return;
        if (head.slice(9, 12) !== String(status)) {
          reject(new Error(`It answered ${head.slice(0, head.indexOf('\r\n'))}.`));
          socket.destroy();
          return;
        }
        const length = /\r\ncontent-length: (\d+)/i.exec(head.slice(0, end));
        left = end + 4 + Number(length?.[1] ?? 0) - head.length;
        head = '';
      } else left -= chunk.length;
      if (left > 0) return;
      left = -1;
      times.push(performance.now() - sent);
      send();
    });
    send();
  });

process.on('message', async ({ port, path, headers, status, connections, milliseconds }) => {
  const lines = Object.entries({ Host: `localhost:${port}`, ...headers }).map((pair) => pair.join(': '));
  const request = Buffer.from(`GET ${path} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n`);
  const times = [];
  try {
    const sockets = await Promise.all(Array.from({ length: connections }, () => opened(port)));
    const begun = performance.now();
    const until = begun + milliseconds;
    const all = await Promise.all(sockets.map((socket) => work(socket, { request, status, until }, times)));
    const seconds = (performance.now() - begun) / 1000;
    times.sort((a, b) => a - b);
    const at = (share) => times[Math.min(times.length - 1, Math.floor(times.length * share))] ?? Number.NaN;
    const bytes = all.reduce((sum, one) => sum + one, 0);
    process.send({ rate: times.length / seconds, bytes: bytes / seconds, p50: at(0.5), p99: at(0.99) });
  } catch (error) {
    process.send({ problem: `${path}: ${error.message}` });
  }
});
