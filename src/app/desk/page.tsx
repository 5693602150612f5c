import { DeskPage } from '@/room/desk/DeskPage';

export default async function Page({ searchParams }: { searchParams: Promise<{ painting?: string | string[] }> }) {
  const { painting } = await searchParams;
  return <DeskPage painting={typeof painting === 'string' ? painting : ''} />;
}
