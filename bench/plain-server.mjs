/** What everything is compared with: a bare server of the platform's that sends the same bytes, whatever is asked of it. */
import { createServer } from 'node:http';

const answers = new Map();

process.on('message', ({ port, of }) => {
  for (const { path, status, headers, body } of of)
    answers.set(path, { status, headers, body: Buffer.from(body) });
  createServer((request, response) => {
    const { status, headers, body } = answers.get(request.url);
    response.writeHead(status, headers);
    response.end(body);
  }).listen(port, '127.0.0.1', () => process.send('ready'));
});
