import { Rack } from '@/room/rack/Rack';

export default function RackPage() {
  return <Rack />;
}
