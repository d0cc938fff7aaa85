import { redirect } from 'next/navigation';

export default function TransfersPage() {
  redirect('/transfers/plan');
}
