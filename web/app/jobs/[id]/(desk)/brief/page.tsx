import { BriefStation } from '../../../../../stations/brief/BriefStation';

export default function BriefPage() {
  return <BriefStation />;
}
