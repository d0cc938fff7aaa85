'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import type { TakenIn } from '@/usecases/mails/takeIn';

const isMail = ({ name, type }: File) => /\.(eml|mbox)$/i.test(name) || type === 'message/rfc822';

/** What came of mails that were brought, in a sentence. */
export function takenWords({ ids, known, open, refused }: TakenIn): string {
  const mails = (count: number) => (count === 1 ? 'One mail' : `${count} mails`);
  const news = ids.length === 0 ? 'No new mail' : `${mails(ids.length)} taken in`;
  const said =
    open === 0 ? 'nothing follows from it' : open === 1 ? 'one tells something new' : `${open} tell something new`;
  const rest = [
    known > 0 ? `${known} ${known === 1 ? 'was' : 'were'} here already` : '',
    refused > 0 ? `${refused} could not be read` : '',
  ].filter(Boolean);
  return `${news}${ids.length > 0 ? `, ${said}` : ''}${rest.length > 0 ? `; ${rest.join('; ')}` : ''}.`;
}

/** Brings mails in from files, and tells what came of them. */
export async function bringMails(files: readonly File[]): Promise<void> {
  for (const file of files) {
    const response = await fetch('/record/mails/bring', {
      method: 'POST',
      headers: { 'content-type': 'message/rfc822' },
      body: file,
    });
    const answer = (await response.json()) as TakenIn | Refusal;
    report(
      isRefusal(answer) ? { text: `${file.name}: ${answer.message}`, problem: true } : { text: takenWords(answer) },
    );
  }
}

/** A mail may be dropped on any place: it is taken in, and its page is opened. */
export function MailDrop() {
  const router = useRouter();
  useEffect(() => {
    const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;
    const over = (event: DragEvent) => {
      // Without this the browser would open the file in place of the program.
      if (holdsFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      if (event.defaultPrevented || !holdsFiles(event)) return;
      event.preventDefault();
      const files = [...(event.dataTransfer?.files ?? [])].filter(isMail);
      if (files.length === 0) {
        report({ text: 'Only mails can be dropped here: files that end in .eml or .mbox.', problem: true });
        return;
      }
      void bringMails(files).then(() => {
        router.push('/record/mails');
        router.refresh();
      });
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [router]);
  return null;
}
