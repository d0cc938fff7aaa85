import { connect } from 'node:net';
import * as commands from '@/formats/epp/commands';
import { frame, frameReader } from '@/formats/epp/frames';

const WHO = { login: 'harbour-quaymark', password: 'quaymark-practice-pw' };
const SERVICES = {
  objects: ['urn:ietf:params:xml:ns:domain-1.0'],
  extensions: ['urn:ietf:params:xml:ns:epp:fee-1.0'],
};

/**
 * What the wire alone takes, in milliseconds: logs in, then sends commands one after the other over one socket, each once the one before
 * is answered. Rejects at an answer that is no success.
 */
export function bareEpp(port: number, documents: readonly string[]): Promise<number> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    const read = frameReader();
    let answered = -1;
    let start = 0;
    const send = (xml: string) => socket.write(frame(xml));
    socket.setNoDelay(true);
    socket.on('error', reject);
    socket.on('data', (piece) => {
      for (const answer of read(piece as Buffer)) {
        answered += 1;
        if (answered === 0) {
          send(commands.login(WHO, SERVICES, 'BARE'));
          continue;
        }
        if (!answer.includes('code="1000"')) reject(new Error(answer.slice(0, 300)));
        if (answered === 1) start = performance.now();
        const document = documents[answered - 1];
        if (document === undefined) {
          socket.end();
          resolve(performance.now() - start);
          return;
        }
        send(document);
      }
    });
  });
}
