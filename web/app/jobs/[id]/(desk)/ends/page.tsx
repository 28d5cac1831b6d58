import { EndsStation } from '../../../../../stations/ends/EndsStation';

export default function EndsPage() {
  return <EndsStation />;
}
