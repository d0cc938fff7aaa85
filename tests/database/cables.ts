import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';

/**
 * Cables between a process and what it talks to, which can be cut all at once: what happens to the outside is then what
 * happens when the process is killed at that moment.
 */
export class Cables {
  private readonly servers: Server[] = [];
  private readonly sockets = new Set<Socket>();
  private left = Number.POSITIVE_INFINITY;
  private isCut = false;

  /** Lays a cable to a port of this machine; answers the port of its near end. */
  async to(port: number): Promise<number> {
    const server = createServer((near) => {
      if (this.isCut) {
        near.resetAndDestroy();
        return;
      }
      const far = connect(port, '127.0.0.1');
      for (const [from, onto] of [
        [near, far],
        [far, near],
      ] as const) {
        this.sockets.add(from);
        from.on('data', (piece) => this.carry(piece, onto));
        from.on('error', () => undefined);
        from.on('close', () => onto.destroy());
      }
    });
    this.servers.push(server);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    return (server.address() as AddressInfo).port;
  }

  /** Cuts every cable when so many more pieces have been carried, the last of them included or not. */
  cutAfter(pieces: number): void {
    this.left = pieces;
  }

  get cut(): boolean {
    return this.isCut;
  }

  private carry(piece: Buffer, onto: Socket): void {
    if (this.isCut) return;
    this.left -= 1;
    if (this.left >= 0) onto.write(piece);
    if (this.left <= 0) this.pull();
  }

  private pull(): void {
    this.isCut = true;
    // What has been handed over is on its way; nothing more is read or written.
    for (const socket of this.sockets) socket.destroySoon();
  }

  async close(): Promise<void> {
    this.isCut = true;
    for (const socket of this.sockets) socket.destroy();
    await Promise.all(this.servers.map((server) => new Promise((done) => server.close(done))));
  }
}
