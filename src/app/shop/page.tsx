import { Shop } from '@/room/outside/Shop';

export default function ShopPage() {
  return <Shop />;
}
