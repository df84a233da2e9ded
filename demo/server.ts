import { createServer as createHttpServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { createServer as createHttpsServer } from 'node:https';
import { createServer as createTcpServer } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import { demoAnswer } from './site';
import type { DemoAnswer } from './site';

/** The first byte of a TLS handshake (RFC 8446 §5.1). */
const TLS_HANDSHAKE = 22;

interface Certificate {
  key: string;
  cert: string;
}
type AnswerOf = (host: string, secure: boolean, path: string) => DemoAnswer;

/**
 * Serves the demo website.
 * @param port 0 for any
 * @param isLater whether it is answered as it is some weeks later
 */
export const serveDemo = (port: number, certificate: Certificate, isLater: () => boolean = () => false) =>
  serveByHost(port, certificate, (host, secure, path) => demoAnswer(host, secure, path, isLater()));

/**
 * Serves websites by host name, http and https on one port of the loopback interface.
 * @param port 0 for any
 * @param certificate key and certificate in PEM
 */
export async function serveByHost(port: number, certificate: Certificate, answerOf: AnswerOf) {
  const answer = (secure: boolean) => (request: IncomingMessage, response: ServerResponse) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
    const { status, headers, body } = answerOf(host, secure, request.url ?? '/');
    response.writeHead(status, headers).end(request.method === 'HEAD' ? undefined : body);
  };
  const http = createHttpServer(answer(false));
  const https = createHttpsServer(certificate, answer(true));
  const sockets = new Set<Socket>();
  const server = createTcpServer((socket) => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.once('data', (first) => {
      socket.pause();
      socket.unshift(first);
      (first[0] === TLS_HANDSHAKE ? https : http).emit('connection', socket);
      process.nextTick(() => socket.resume());
    });
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: () => {
      for (const socket of sockets) socket.destroy();
      return new Promise((resolve) => server.close(resolve));
    },
  };
}
