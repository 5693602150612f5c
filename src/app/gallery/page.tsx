import { Gallery } from '@/room/outside/Gallery';

export default function GalleryPage() {
  return <Gallery />;
}
