'use client';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { useTitle } from './frame/PageTitle';

/** An address at which nothing stands. */
export default function NotFound() {
  useTitle('Not here');
  return (
    <Empty
      title="There is nothing at this address."
      text="It may have been settled, dropped or deleted since; a list that was brought in is kept for a week."
    >
      <ButtonLink href="/today" data-kind="primary">
        To Today
      </ButtonLink>
    </Empty>
  );
}
