import { Suspense } from 'react';
import { EaselPage } from '@/room/easel/EaselPage';

export default function Page() {
  return (
    <Suspense>
      <EaselPage />
    </Suspense>
  );
}
