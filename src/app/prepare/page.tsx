import { Suspense } from 'react';
import { PreparePage } from '@/room/prepare/PreparePage';

export default function Page() {
  return (
    <Suspense>
      <PreparePage />
    </Suspense>
  );
}
