import { createServer, type Server, type Socket } from 'node:net';

/** A mail in the office's mailbox, as it came. */
export interface BoxedMail {
  readonly uid: number;
  readonly at: Date;
  readonly raw: string;
}

const LOGIN = { user: 'office', password: 'mailbox-practice-pw' } as const;
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Who may log in at the practice mailbox. */
export const MAILBOX_LOGIN = LOGIN;

/** A mailbox on loopback that can be read by IMAP (RFC 3501), as much of it as a reader needs: log in, look, search, fetch. */
export function mailboxServer(mails: readonly BoxedMail[], validity = 1): Server {
  return createServer((socket) => {
    socket.on('error', () => undefined);
    socket.write('* OK [CAPABILITY IMAP4rev1] the practice mailbox\r\n');
    const session = { isIn: false, isOpen: false };
    let rest = '';
    socket.on('data', (piece) => {
      rest += piece.toString('latin1');
      for (let end = rest.indexOf('\r\n'); end >= 0; end = rest.indexOf('\r\n')) {
        const line = rest.slice(0, end);
        rest = rest.slice(end + 2);
        answer(socket, line, session, mails, validity);
      }
      // Nobody who reads mails says so much without an end of line.
      if (rest.length > 64 * 1024) socket.destroy();
    });
  });
}

function answer(
  socket: Socket,
  line: string,
  session: { isIn: boolean; isOpen: boolean },
  mails: readonly BoxedMail[],
  validity: number,
): void {
  const [, tag = '*', command = '', rest = ''] = /^(\S+) (UID \S+|\S+) ?(.*)$/i.exec(line) ?? [];
  const say = (...lines: string[]) => socket.write(`${lines.join('\r\n')}\r\n`, 'latin1');
  const done = (word = 'OK', text = 'done') => say(`${tag} ${word} ${text}`);
  const name = command.toUpperCase();
  if (name === 'CAPABILITY') return void (say('* CAPABILITY IMAP4rev1') && done());
  if (name === 'NOOP') return void done();
  if (name === 'LOGOUT') {
    say('* BYE until later');
    done();
    socket.end();
    return;
  }
  if (name === 'LOGIN') {
    session.isIn = isLogin(rest);
    return void (session.isIn ? done() : done('NO', '[AUTHENTICATIONFAILED] not you'));
  }
  if (!session.isIn) return void done('NO', 'log in first');
  if (name === 'LIST' || name === 'LSUB') {
    if (/["\s](?:\*|%|inbox)"?$/i.test(rest)) say(`* ${name} (\\HasNoChildren) "/" INBOX`);
    return void done();
  }
  if (name === 'SELECT' || name === 'EXAMINE') {
    if (!/^"?inbox"?/i.test(rest)) return void done('NO', '[NONEXISTENT] there is no such folder');
    session.isOpen = true;
    say(
      '* FLAGS (\\Seen)',
      `* ${mails.length} EXISTS`,
      '* 0 RECENT',
      `* OK [UIDVALIDITY ${validity}] so far`,
      `* OK [UIDNEXT ${(mails.at(-1)?.uid ?? 0) + 1}] next`,
    );
    return void done('OK', '[READ-ONLY] open');
  }
  if (!session.isOpen) return void done('NO', 'open a folder first');
  if (name === 'UID SEARCH') {
    say(
      `* SEARCH ${mails
        .filter((mail) => isWanted(mail, rest, mails))
        .map(({ uid }) => uid)
        .join(' ')}`.trimEnd(),
    );
    return void done();
  }
  if (name === 'UID FETCH') {
    const [set = ''] = rest.split(' ');
    for (const [i, mail] of mails.entries()) {
      if (!isIn(set, mail.uid, mails)) continue;
      const octets = Buffer.from(mail.raw, 'utf8');
      socket.write(`* ${i + 1} FETCH (UID ${mail.uid} BODY[]<0> {${octets.length}}\r\n`);
      socket.write(octets);
      socket.write(')\r\n');
    }
    return void done();
  }
  if (name === 'CLOSE' || name === 'UNSELECT') return void done();
  done('BAD', 'not here');
}

const isLogin = (words: string) => new RegExp(`^"?${LOGIN.user}"? "?${LOGIN.password}"?$`).test(words);
/** Whether a number stands in a set like `3,7:*`. */
function isIn(set: string, uid: number, mails: readonly BoxedMail[]): boolean {
  const last = mails.at(-1)?.uid ?? 0;
  return set.split(',').some((part) => {
    const [from = 0, to = from] = part.split(':').map((one) => (one === '*' ? last : Number(one)));
    return uid >= Math.min(from, to) && uid <= Math.max(from, to);
  });
}

function isWanted({ uid, at }: BoxedMail, words: string, mails: readonly BoxedMail[]): boolean {
  const [, set] = /UID ([\d:*,]+)/i.exec(words) ?? [];
  const [, day, month, year] = /SINCE "?(\d{1,2})-(\w{3})-(\d{4})"?/i.exec(words) ?? [];
  if (set !== undefined && !isIn(set, uid, mails)) return false;
  return month === undefined || at.getTime() >= Date.UTC(Number(year), MONTHS.indexOf(month), Number(day));
}
