import { Suspense } from 'react';
import { DeskPage } from '@/room/desk/DeskPage';

export default function Page() {
  return (
    <Suspense>
      <DeskPage />
    </Suspense>
  );
}
