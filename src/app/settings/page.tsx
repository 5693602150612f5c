import { Settings } from '@/room/settings/Settings';

export default function SettingsPage() {
  return <Settings />;
}
