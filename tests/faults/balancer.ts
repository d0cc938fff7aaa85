import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Shares requests out among processes that say that they are well, as whatever stands before several machines does. */
export interface Balancer {
  readonly url: string;
  close(): Promise<void>;
}

/**
 * Each request goes to the next process whose `/api/v1/health` answers well; that is asked every `everyMs`. A request that no connection was
 * had for goes to the next one; one that had begun is never sent twice.
 */
export async function balance(ports: readonly number[], everyMs = 100): Promise<Balancer> {
  const well = new Set<number>(ports);
  const look = setInterval(() => {
    for (const port of ports)
      void fetch(`http://127.0.0.1:${port}/api/v1/health`, { signal: AbortSignal.timeout(1500) }).then(
        ({ status }) => (status === 503 ? well.delete(port) : well.add(port)),
        () => well.delete(port),
      );
  }, everyMs);
  let turn = 0;
  const server: Server = createServer((asked, answer) => {
    const pieces: Buffer[] = [];
    asked.on('data', (piece: Buffer) => pieces.push(piece));
    asked.on('end', () => {
      const body = Buffer.concat(pieces);
      const pass = (left: number) => {
        const now = ports.filter((port) => well.has(port));
        turn += 1;
        const port = now[turn % Math.max(1, now.length)] ?? ports[0];
        let isConnected = false;
        const sent = request(
          { host: '127.0.0.1', port, method: asked.method, path: asked.url, headers: asked.headers, agent: false },
          (back) => {
            answer.writeHead(back.statusCode ?? 502, back.headers);
            back.pipe(answer);
          },
        );
        sent.on('socket', (socket) =>
          socket.once('connect', () => {
            isConnected = true;
          }),
        );
        sent.on('error', (error) => {
          if (port !== undefined && !isConnected) well.delete(port);
          if (!isConnected && left > 0) pass(left - 1);
          else answer.writeHead(502).end(String(error));
        });
        sent.end(body);
      };
      pass(ports.length * 2);
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: async () => {
      clearInterval(look);
      server.closeAllConnections();
      await new Promise((closed) => server.close(closed));
    },
  };
}
