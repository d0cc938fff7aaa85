import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MAILBOX_LOGIN } from '@practice/mail/mailbox';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { saveMailbox } from '@/usecases/mails/mailbox';
import { mails } from '@/usecases/mails/mails';
import { startApp, type TestApp } from './app';

let app: TestApp;
const folder = mkdtempSync(join(tmpdir(), 'mails-'));
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const RENEWED =
  'From: Quaymark <service@quaymark.test>\r\nMessage-ID: <r1@quaymark.test>\r\nDate: Mon, 23 Nov 2026 16:20:00 +0000\r\nSubject: larchworks.com has been renewed\r\n\r\nNew term ends: 2028-01-24\r\nCharged: USD 11.38\r\n';

test('a pasted mail is read, what it says is taken over, and the name’s history leads back to it', async () => {
  const { visitor } = app;
  await visitor.go('/record');
  await visitor.click('Mails');
  await visitor.see('No mail has been brought yet.');
  await visitor.fill('Paste a mail', '');
  const field = await visitor.field('Paste a mail');
  await visitor.driver.executeScript(
    "const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set; set.call(arguments[0], arguments[1]); arguments[0].dispatchEvent(new Event('input', { bubbles: true }))",
    field,
    RENEWED,
  );
  await visitor.press('Read it');
  await visitor.see('One mail taken in, one tells something new.');
  await visitor.click('Quaymark says that it has renewed larchworks.com');
  await visitor.see('its term ends 24 Jan 2028, $11.38 were charged');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Take it over');
  await visitor.see('taken over');
  await visitor.go('/ledger/larchworks.com');
  await visitor.see('24 Jan 2028');
  await visitor.press('mail of 2026-11-23 from service@quaymark.test: larchworks.com has been renewed');
  await visitor.see('As text alone.');
  const [{ names } = { names: [] }] = await mails(app.ledger, { limit: 1 });
  expect(names[0]).toMatchObject({ ascii: 'larchworks.com', state: 'taken' });
});

test('a mail is dropped on another place: its page opens, and a stranger’s is told as one', async () => {
  const { visitor } = app;
  await visitor.go('/rescue');
  await visitor.see('In danger:');
  await visitor.driver.executeScript(
    `const data = new DataTransfer();
     data.items.add(new File([arguments[0]], 'notice.eml', { type: 'message/rfc822' }));
     window.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));`,
    RENEWED.replaceAll('quaymark.test', 'names-office.test')
      .replace('r1@', 'r2@')
      .replace('larchworks.com', 'withyworks.net'),
  );
  await visitor.see('One mail taken in, nothing follows from it.');
  await visitor.see('no registrar of yours');
  await visitor.see('nothing is proposed');
});

test('a file is chosen; what is none is refused in words', async () => {
  const { visitor } = app;
  await visitor.go('/record/mails');
  const file = join(folder, 'box.mbox');
  writeFileSync(
    file,
    `From a@quaymark.test Tue Nov 24 09:12:00 2026\n${RENEWED.replace('r1@', 'r3@').replaceAll('larchworks', 'copperbuoy').replace('2028-01-24', '2027-12-09')}`,
  );
  await visitor.see('Choose files');
  const input = await visitor.driver.findElement(By.css('input[type=file]'));
  await input.sendKeys(file);
  await visitor.see('One mail taken in, one tells something new.');
  const none = join(folder, 'none.eml');
  writeFileSync(none, 'nothing');
  await input.sendKeys(none);
  await visitor.see('none.eml: This is no mail that can be read.');
  // The browser tells of the refusal too.
  expect(await visitor.consoleErrors()).toHaveLength(1);
});

test('the mailbox of the office is read, and what failed to be charged waits on Today', async () => {
  const { visitor, practice, ledger } = app;
  await saveMailbox(ledger, { host: '127.0.0.1', port: practice?.mailboxPort, ...MAILBOX_LOGIN });
  await visitor.go('/setup/mail');
  await visitor.press('Read it now');
  await visitor.see('4 new mails.');
  await visitor.go('/record/mails');
  await visitor.see('Domain Registry Office, no registrar of yours, says that it will renew copperbuoy.com');
  await visitor.fill('Find in all mails', 'möwenspeicher');
  await visitor.keys(Key.ENTER);
  await visitor.see('One mail speaks of “möwenspeicher”.');
  await visitor.go('/today');
  await visitor.see('something new');
});
