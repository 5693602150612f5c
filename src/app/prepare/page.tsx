import { Prepare } from '@/room/prepare/Prepare';

export default function PreparePage() {
  return <Prepare />;
}
