import { DressStation } from '../../../../../stations/dress/DressStation';

export default function DressPage() {
  return <DressStation />;
}
