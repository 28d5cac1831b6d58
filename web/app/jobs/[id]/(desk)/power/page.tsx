import { PowerStation } from '../../../../../stations/power/PowerStation';

export default function PowerPage() {
  return <PowerStation />;
}
