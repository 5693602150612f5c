import { EaselPage } from '@/room/easel/EaselPage';

export default async function Page({ searchParams }: { searchParams: Promise<{ painting?: string | string[] }> }) {
  const { painting } = await searchParams;
  return <EaselPage painting={typeof painting === 'string' ? painting : ''} />;
}
